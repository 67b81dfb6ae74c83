import { describe, expect, it } from 'vitest'

import { type Label, type Obstacle, overlap, placeLabels } from './labels'

const bounds = { x: 0, y: 0, width: 800, height: 600 }

/** A small repeatable random source. */
function random(seed: number): () => number {
  let state = seed
  return () => (state = (state * 16807) % 2147483647) / 2147483647
}

describe('placing labels', () => {
  it('never lays one label on another, nor outside, however they crowd', () => {
    for (let seed = 1; seed <= 200; seed++) {
      const next = random(seed)
      const labels: Label[] = Array.from({ length: 9 }, (_, i) => ({
        key: String(i),
        width: 60 + next() * 110,
        height: 16 + next() * 34,
        places: [{ x: 300 + next() * 120, y: 250 + next() * 80 }],
      }))
      const obstacles: Obstacle[] = Array.from({ length: 40 }, () => ({
        x: next() * 780,
        y: next() * 580,
        width: 8,
        height: 8,
      }))
      const placed = placeLabels(labels, obstacles, bounds)
      expect(placed).toHaveLength(labels.length)
      placed.forEach((a, i) => {
        expect(a.x >= 0 && a.y >= 0 && a.x + a.width <= 800.001 && a.y + a.height <= 600.001).toBe(true)
        for (const b of placed.slice(i + 1)) expect(overlap(a, b), `seed ${seed}: ${a.key} on ${b.key}`).toBe(0)
      })
    }
  })

  it('takes the first free place, and may lie on its own line', () => {
    const label: Label = {
      key: 'span',
      width: 80,
      height: 20,
      places: [
        { x: 100, y: 100 },
        { x: 300, y: 300 },
      ],
    }
    const line = { x: 95, y: 95, width: 10, height: 10 }
    expect(placeLabels([label], [{ ...line, owner: 'span' }], bounds)[0]).toMatchObject({ x: 60, y: 90 })
    expect(placeLabels([label], [line], bounds)[0]).toMatchObject({ x: 260, y: 290 })
  })
})
