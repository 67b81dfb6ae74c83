import { expect, test } from 'vitest'

import { beside, pushedAt } from './scene'

test('a dimension stands off its line with witness lines that reach past it', () => {
  const found = beside('span', { x1: 0, y1: 0, x2: 10, y2: 0 }, 0, -1, 20)
  expect([found.x1, found.y1, found.x2, found.y2]).toEqual([0, -20, 10, -20])
  expect(found.from.map((f) => [f.x1, f.y1, f.x2, f.y2])).toEqual([
    [0, 0, 0, -26],
    [10, 0, 10, -26],
  ])
})

test('a push goes in against the outward side, its force from outside', () => {
  const found = pushedAt({ x1: 0, y1: 0, x2: 10, y2: 0, nx: 0, ny: -1 }, 3, 20, 4)
  expect(found.path).toBe('M 0 0 L 5 3 L 10 0')
  expect(found.force).toEqual({ x1: 5, y1: -20, x2: 5, y2: -4 })
})
