import { describe, expect, it } from 'vitest'

import type { Drawing } from '../api/client'
import { beltLoop, fit, gridStep } from './view'

const wheel = (role: string, x: number, r: number) => ({
  role,
  x_m: x,
  y_m: 0,
  datum_radius_m: r,
  outside_radius_m: r + 0.004,
  wrap_start_rad: Math.PI / 2,
  wrap_sweep_rad: Math.PI,
  speed_rad_per_s: null,
  pull_x_n: null,
  pull_y_n: null,
})
const drawing: Drawing = {
  bands: '',
  wheels: [wheel('driver', 0, 0.1), wheel('driven', 1, 0.1)],
  spans: [
    { x1_m: 0, y1_m: 0.1, x2_m: 1, y2_m: 0.1, normal_rad: Math.PI / 2, tight: false },
    { x1_m: 0, y1_m: -0.1, x2_m: 1, y2_m: -0.1, normal_rad: -Math.PI / 2, tight: true },
  ],
  belt_height_m: 0.01,
  back_offset_m: 0.004,
  clockwise: true,
  deflection_m: 1 / 64,
}

describe('the drawing on the screen', () => {
  it('keeps one scale both ways and stays inside its insets', () => {
    const view = fit(drawing, 800, 600, { top: 50, right: 60, bottom: 70, left: 80 })
    expect(view.x(1) - view.x(0)).toBeCloseTo(view.scale)
    expect(view.y(0) - view.y(0.1)).toBeCloseTo(view.scale * 0.1)
    expect(view.x(-0.104)).toBeGreaterThanOrEqual(80 - 1e-9)
    expect(view.x(1.104)).toBeLessThanOrEqual(740 + 1e-9)
  })

  it('zooms to the wheel being measured', () => {
    const insets = { top: 0, right: 0, bottom: 0, left: 0 }
    expect(fit(drawing, 390, 196, insets, 'driver').scale).toBeGreaterThan(2 * fit(drawing, 390, 196, insets).scale)
  })

  it('draws the belt as one closed loop at the asked offset', () => {
    const view = { scale: 1000, x: (m: number) => m * 1000, y: (m: number) => -m * 1000 }
    expect(beltLoop(drawing, view, 0)).toBe(
      'M 1000.00 -100.00 L 0.00 -100.00 A 100.00 100.00 0 0 0 0.00 100.00 L 1000.00 100.00 A 100.00 100.00 0 0 0 1000.00 -100.00 Z',
    )
    expect(beltLoop(drawing, view, 0.01)).toContain('A 110.00 110.00')
  })

  it('never draws a grid too fine to see', () => {
    for (const scale of [20, 60, 200, 900, 5000]) {
      for (const system of ['us', 'si'] as const)
        expect(gridStep(scale, system).metres * scale).toBeGreaterThanOrEqual(9)
    }
  })
})
