import { describe, expect, it } from 'vitest'

import { arrowHead, unturned } from './arrows'

describe('arrows on a turned photograph', () => {
  it.each([0, 90, 180, 270])('turned by %i a tap lands where the finger is', (turned) => {
    // Turn a point of the picture clockwise by hand, and back.
    const [x, y] = [0.2, 0.7]
    let at: [number, number] = [x, y]
    for (let i = 0; i < turned / 90; i++) at = [1 - at[1], at[0]]
    const [bx, by] = unturned(...at, turned)
    expect(bx).toBeCloseTo(x)
    expect(by).toBeCloseTo(y)
  })
  it('ends at its head, its barbs behind it', () => {
    expect(arrowHead({ x1: 0, y1: 0.5, x2: 1, y2: 0.5 }, 1800, 900)).toBe(
      'M0.0 450.0L1800.0 450.0M1712.2 402.1L1800.0 450.0L1712.2 497.9',
    )
  })
})
