import type { Layout } from '../api/client'

/** Metres to pixels, y down. */
export interface Frame {
  scale: number
  x: (m: number) => number
  y: (m: number) => number
}

/** The whole layout in the picture, with room for labels round it. */
export function frameOf(wheels: Layout['wheels'], width: number, height: number, pad: number): Frame | null {
  if (!wheels.length || width < 40 || height < 40) return null
  const x0 = Math.min(...wheels.map((w) => w.x_m - w.rim_radius_m))
  const x1 = Math.max(...wheels.map((w) => w.x_m + w.rim_radius_m))
  const y0 = Math.min(...wheels.map((w) => w.y_m - w.rim_radius_m))
  const y1 = Math.max(...wheels.map((w) => w.y_m + w.rim_radius_m))
  const scale = Math.min((width - 2 * pad) / Math.max(x1 - x0, 1e-6), (height - 2 * pad) / Math.max(y1 - y0, 1e-6))
  return {
    scale,
    x: (m) => width / 2 + (m - (x0 + x1) / 2) * scale,
    y: (m) => height / 2 - (m - (y0 + y1) / 2) * scale,
  }
}

/** A belt's line as one closed path from its driver on; round a wheel seen edge on it is a straight line. */
export function beltLine(wheels: Layout['wheels'], belt: Layout['belts'][number], frame: Frame): string {
  const { order, runs } = belt
  const parts: string[] = []
  runs.forEach((run, i) => {
    const next = wheels[order[(i + 1) % order.length] ?? -1]
    const after = runs[(i + 1) % runs.length]
    if (!next || !after) return
    if (!i) parts.push(`M ${frame.x(run.x1_m)} ${frame.y(run.y1_m)}`)
    parts.push(`L ${frame.x(run.x2_m)} ${frame.y(run.y2_m)}`)
    const r = next.line_radius_m * frame.scale
    // Counter-clockwise in the plane is sweep 0 on a screen whose y points down.
    const arc = `A ${r} ${r} 0 ${next.wrap_rad > Math.PI ? 1 : 0} ${next.turns > 0 ? 0 : 1}`
    parts.push(`${next.edge_on ? 'L' : arc} ${frame.x(after.x1_m)} ${frame.y(after.y1_m)}`)
  })
  return parts.length ? `${parts.join(' ')} Z` : ''
}
