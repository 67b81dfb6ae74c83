import { describe, expect, it } from 'vitest'

import { flags, reach, ticks } from './scale'
import type { Kept, Mark, Tight } from './useTension'

const mark = (kind: string, key: string, low: number, high = low): Mark =>
  ({
    kind,
    key,
    label: key,
    low,
    high,
    mid: (low + high) / 2,
    text: { us: `${low} lbf`, si: `${low} N` },
    said: '',
  }) as Mark
const tight = (marks: Mark[], more: object = {}): Tight =>
  ({ marks, strands: [], uppers: [], ...more }) as unknown as Tight

describe('the scale of tension', () => {
  const window = [
    mark('slip', 'running', 80),
    mark('slip', 'jolt', 84),
    mark('target', 'target', 86),
    mark('band', 'run in', 77, 130),
  ]

  it('reaches past the band and what was read, but not to a far upper limit or a wild rule', () => {
    const far = tight([...window, mark('rule', 'inch', 100, 900)], { uppers: [{ limit: 5000 }] })
    expect(reach(far, [])).toBeCloseTo(169)
    const near = tight(window, { uppers: [{ limit: 200 }] })
    expect(reach(near, [])).toBeCloseTo(224)
    expect(reach(tight(window), [{ tension: 300, std: 20 } as Kept])).toBeCloseTo(357)
    expect(reach(tight([mark('rule', 'inch', 20, 60)]), [])).toBe(80)
  })

  it('has round numbers along it, in pounds too', () => {
    expect(ticks(169, 1)).toEqual([0, 50, 100, 150])
    expect(ticks(169, 4.448)).toEqual([0, 10, 20, 30])
    expect(ticks(1.9, 1).length).toBeLessThan(8)
  })

  it('puts no flag over another, and keeps each within the bar', () => {
    const found = flags(tight(window), 160, 600, (m) => m.text.us)
    expect(found.map((f) => f.key)).toEqual(['running', 'jolt', 'target'])
    for (const row of new Set(found.map((f) => f.row))) {
      const here = found.filter((f) => f.row === row)
      here.slice(1).forEach((f, i) => expect(f.x - here[i]!.x).toBeGreaterThan(30))
    }
    expect(new Set(found.map((f) => f.row)).size).toBe(3)
    expect(flags(tight([mark('slip', 'running', 1)]), 160, 600, (m) => m.text.us)[0]!.end).toBe('start')
    expect(flags(tight([mark('upper', 'mounts, driver', 500)]), 160, 600, (m) => m.text.us)).toEqual([])
  })
})
