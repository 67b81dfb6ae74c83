import { describe, expect, it } from 'vitest'

import type { Layout } from '../api/client'
import { beltLine, frameOf } from './layoutPath'

const wheel = (name: string, role: string, x_m: number, turns: 1 | -1 = 1): Layout['wheels'][number] => ({
  name,
  role,
  contact: 'inside',
  face: 'grooved',
  x_m,
  y_m: 0,
  rim_radius_m: 0.1,
  line_radius_m: 0.1,
  turns,
  from_rad: 0,
  wrap_rad: Math.PI,
  wrap: '180°',
})
const run = (x1_m: number, y1_m: number, x2_m: number, y2_m: number): Layout['runs'][number] => ({
  x1_m,
  y1_m,
  x2_m,
  y2_m,
  length: { us: '', si: '' },
  pull: '',
})
const layout: Layout = {
  wheels: [wheel('fan', 'driven', 1), wheel('motor', 'driver', 0)],
  runs: [run(0, -0.1, 1, -0.1), run(1, 0.1, 0, 0.1)],
  belt_height_m: 0.01,
  back_m: 0,
  length: null,
  belts: [],
  verdicts: [],
  notes: {},
  problems: [],
}

describe('a layout on the screen', () => {
  it('fits every rim into the picture, y up becoming y down', () => {
    const frame = frameOf(layout.wheels, 500, 300, 20)!
    expect(frame.x(-0.1)).toBeGreaterThanOrEqual(20)
    expect(frame.x(1.1)).toBeLessThanOrEqual(480)
    expect(frame.y(0.1)).toBeLessThan(frame.y(-0.1))
    expect(frameOf([], 500, 300, 20)).toBeNull()
  })

  it('draws the belt from the driver on, each arc round the wheel that the run meets', () => {
    const frame = frameOf(layout.wheels, 500, 300, 20)!
    const path = beltLine(layout, frame)
    expect(path.startsWith(`M ${frame.x(0)} ${frame.y(-0.1)} L ${frame.x(1)} ${frame.y(-0.1)}`)).toBe(true)
    const arcs = [...path.matchAll(/A \S+ \S+ 0 \d (\d) (\S+) (\S+)/g)].map((m) => [Number(m[1]), Number(m[2])])
    expect(arcs).toEqual([
      [0, frame.x(1)],
      [0, frame.x(0)],
    ])
    expect(beltLine({ ...layout, runs: [] }, frame)).toBe('')
  })
})
