import { describe, expect, it } from 'vitest'

import type { Layout } from '../api/client'
import { beltLine, frameOf } from './layoutPath'

type Wheel = Layout['wheels'][number]
type Belt = Layout['belts'][number]
const wheel = (name: string, role: string, x_m: number, edge_on = false): Wheel => ({
  name,
  belt: 1,
  role,
  contact: 'inside',
  face: 'grooved',
  x_m,
  y_m: 0,
  rim_radius_m: 0.1,
  line_radius_m: 0.1,
  turns: 1,
  from_rad: 0,
  wrap_rad: Math.PI,
  wrap: '180°',
  speed: null,
  rim_speed: null,
  shares: 0,
  edge_on,
  diameter: { us: '', si: '' },
})
const run = (x1_m: number, y1_m: number, x2_m: number, y2_m: number): Belt['runs'][number] => ({
  x1_m,
  y1_m,
  x2_m,
  y2_m,
  length: { us: '', si: '' },
  pull: '',
})
const wheels = [wheel('fan', 'driven', 1), wheel('motor', 'driver', 0)]
const belt: Belt = {
  number: 1,
  goes_round: 'belt',
  order: [1, 0],
  runs: [run(0, -0.1, 1, -0.1), run(1, 0.1, 0, 0.1)],
  height_m: 0.01,
  back_m: 0,
  length: null,
  nearest: [],
  needs: null,
  slip_order: [],
  pace: 1,
}

describe('a layout on the screen', () => {
  it('fits every rim into the picture, y up becoming y down', () => {
    const frame = frameOf(wheels, 500, 300, 20)!
    expect(frame.x(-0.1)).toBeGreaterThanOrEqual(20)
    expect(frame.x(1.1)).toBeLessThanOrEqual(480)
    expect(frame.y(0.1)).toBeLessThan(frame.y(-0.1))
    expect(frameOf([], 500, 300, 20)).toBeNull()
  })

  it('draws the belt from the driver on, each arc round the wheel that the run meets', () => {
    const frame = frameOf(wheels, 500, 300, 20)!
    const path = beltLine(wheels, belt, frame)
    expect(path.startsWith(`M ${frame.x(0)} ${frame.y(-0.1)} L ${frame.x(1)} ${frame.y(-0.1)}`)).toBe(true)
    const arcs = [...path.matchAll(/A \S+ \S+ 0 \d (\d) (\S+) (\S+)/g)].map((m) => [Number(m[1]), Number(m[2])])
    expect(arcs).toEqual([
      [0, frame.x(1)],
      [0, frame.x(0)],
    ])
    expect(beltLine(wheels, { ...belt, runs: [] }, frame)).toBe('')
  })

  it('goes straight past a wheel seen edge on', () => {
    const frame = frameOf(wheels, 500, 300, 20)!
    const turned = [wheel('hoist', 'driven', 1, true), wheels[1]!]
    expect(beltLine(turned, belt, frame).match(/A /g)).toHaveLength(1)
  })
})
