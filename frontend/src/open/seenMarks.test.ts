import { expect, test } from 'vitest'

import { marksOf } from './seenMarks'

const finding = (what: string, place: string, weight = 'watch') => ({ what, place, weight })

test('findings of one place stand under one mark, the heavier one; without a place there is none', () => {
  const at = (place: string) => (place === 'belt' ? { x: 1, y: 2 } : null)
  const found = marksOf(
    [finding('flops', 'belt'), finding('broke', 'belt', 'stop'), finding('rust', ''), finding('hot', 'driver')],
    at,
  )
  expect(found).toEqual([{ x: 1, y: 2, weight: 'stop', words: 'flops; broke' }])
})
