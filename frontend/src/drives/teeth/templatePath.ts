import type { Toothed } from '../../api/client'

export type Template = Toothed['found'][number]['template']
type Point = number[]

const line = (points: Point[], scale: number, dx: number, dy: number, closed: boolean): string =>
  points
    .map(([x = 0, y = 0], i) => `${i ? 'L' : 'M'} ${(x * scale + dx).toFixed(3)} ${(dy - y * scale).toFixed(3)}`)
    .join(' ') + (closed ? ' Z' : '')

/** A belt's side view, teeth down, in units of `scale` a metre; (x, y) is its lower left corner. */
export const beltShape = (t: Template, scale: number, x: number, y: number): string =>
  t.belt ? line(t.belt.points, scale, x, y, t.belt.closed) : ''

/** A link plate between two pins, waisted like an 8 or straight. */
export function plateShape(t: Template, scale: number, x: number, y: number): string {
  const p = t.pitch_m * scale
  const r = ((t.plate_height_m ?? t.height_m) * scale) / 2
  if (!t.waisted)
    return `M ${x} ${y - r} H ${x + p} A ${r} ${r} 0 0 1 ${x + p} ${y + r} H ${x} A ${r} ${r} 0 0 1 ${x} ${y - r} Z`
  const waist = r * 0.68
  const c = p / 2
  return (
    `M ${x} ${y - r} C ${x + c * 0.55} ${y - r} ${x + c * 0.6} ${y - waist} ${x + c} ${y - waist} ` +
    `C ${x + c * 1.4} ${y - waist} ${x + c * 1.45} ${y - r} ${x + p} ${y - r} A ${r} ${r} 0 0 1 ${x + p} ${y + r} ` +
    `C ${x + c * 1.45} ${y + r} ${x + c * 1.4} ${y + waist} ${x + c} ${y + waist} ` +
    `C ${x + c * 0.6} ${y + waist} ${x + c * 0.55} ${y + r} ${x} ${y + r} A ${r} ${r} 0 0 1 ${x} ${y - r} Z`
  )
}

/** The sprocket's rim over a few teeth, its middle space under (x, y), the roller centre's place. */
export function rimShape(t: Template, scale: number, x: number, y: number, spaces: number): string {
  if (!t.tooth) return ''
  const points = t.tooth.points
  const all: Point[] = []
  for (let k = -spaces; k <= spaces; k++) {
    const a = (2 * Math.PI * k) / t.tooth_teeth
    for (const [px = 0, py = 0] of points)
      all.push([px * Math.cos(a) + py * Math.sin(a), py * Math.cos(a) - px * Math.sin(a)])
  }
  return line(all, scale, x, y + t.wheel_radius_m * scale, false)
}
