import type { Drawing } from '../api/client'

/** The drawing's geometry on the screen: metres to pixels, y down. Nothing of the trade is computed here. */

export interface View {
  scale: number
  x: (m: number) => number
  y: (m: number) => number
}

export interface Insets {
  top: number
  right: number
  bottom: number
  left: number
}

/** Fit the drive (or, with `focus`, one wheel of it) into the picture. */
export function fit(
  drawing: Drawing,
  width: number,
  height: number,
  insets: Insets,
  focus?: 'driver' | 'driven',
): View {
  const wheels = focus ? drawing.wheels.filter((w) => w.role === focus) : drawing.wheels
  const reach = (w: (typeof wheels)[number]) => w.outside_radius_m * (focus ? 1.25 : 1)
  const left = Math.min(...wheels.map((w) => w.x_m - reach(w)))
  const right = Math.max(...wheels.map((w) => w.x_m + reach(w)))
  const bottom = Math.min(...wheels.map((w) => w.y_m - reach(w)))
  const top = Math.max(...wheels.map((w) => w.y_m + reach(w)))
  const roomX = Math.max(40, width - insets.left - insets.right)
  const roomY = Math.max(40, height - insets.top - insets.bottom)
  const scale = Math.min(roomX / (right - left), roomY / (top - bottom))
  const offsetX = insets.left + (roomX - scale * (right - left)) / 2
  const offsetY = insets.top + (roomY - scale * (top - bottom)) / 2
  return { scale, x: (m) => offsetX + (m - left) * scale, y: (m) => offsetY + (top - m) * scale }
}

const f = (n: number): string => n.toFixed(2)

/** The closed loop of the belt at `offset` outside its datum line (m), as an SVG path. */
export function beltLoop(drawing: Drawing, view: View, offset: number): string {
  const [driver, driven] = drawing.wheels
  const [upper, lower] = drawing.spans
  if (!driver || !driven || !upper || !lower) return ''
  const point = (x: number, y: number, normal: number) =>
    `${f(view.x(x + offset * Math.cos(normal)))} ${f(view.y(y + offset * Math.sin(normal)))}`
  const arc = (wheel: typeof driver, to: string) => {
    const r = f((wheel.datum_radius_m + offset) * view.scale)
    return `A ${r} ${r} 0 ${wheel.wrap_sweep_rad > Math.PI ? 1 : 0} 0 ${to}`
  }
  const u1 = point(upper.x1_m, upper.y1_m, upper.normal_rad)
  const u2 = point(upper.x2_m, upper.y2_m, upper.normal_rad)
  const l1 = point(lower.x1_m, lower.y1_m, lower.normal_rad)
  const l2 = point(lower.x2_m, lower.y2_m, lower.normal_rad)
  return `M ${u2} L ${u1} ${arc(driver, l1)} L ${l2} ${arc(driven, u2)} Z`
}

/** An arc arrow round a wheel's hub in the direction it turns. */
export function turnArrow(cx: number, cy: number, radius: number, clockwise: boolean): { arc: string; head: string } {
  const from = clockwise ? -2.5 : -0.64
  const to = clockwise ? -0.64 : -2.5
  const at = (angle: number, r = radius) => ({ x: cx + r * Math.cos(angle), y: cy + r * Math.sin(angle) })
  const a = at(from)
  const b = at(to)
  const along = to + (clockwise ? Math.PI / 2 : -Math.PI / 2)
  const size = Math.max(6, radius * 0.22)
  const wing = (turn: number) => `${f(b.x - size * Math.cos(along + turn))} ${f(b.y - size * Math.sin(along + turn))}`
  return {
    arc: `M ${f(a.x)} ${f(a.y)} A ${f(radius)} ${f(radius)} 0 0 ${clockwise ? 1 : 0} ${f(b.x)} ${f(b.y)}`,
    head: `M ${wing(0.42)} L ${f(b.x)} ${f(b.y)} L ${wing(-0.42)}`,
  }
}

/** Grid spacing that stays readable: an inch or 25 mm, or a multiple. */
export function gridStep(scale: number, system: 'us' | 'si'): { metres: number; label: string } {
  const steps: [number, string][] =
    system === 'us'
      ? [
          [0.0254, '1 in'],
          [0.1524, '6 in'],
          [0.3048, '1 ft'],
          [1.524, '5 ft'],
        ]
      : [
          [0.025, '25 mm'],
          [0.1, '100 mm'],
          [0.5, '500 mm'],
          [2, '2 m'],
        ]
  const [metres, label] = steps.find(([m]) => m * scale >= 9) ?? steps[steps.length - 1]!
  return { metres, label }
}
