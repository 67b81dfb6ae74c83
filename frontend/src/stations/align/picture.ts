import type { Aligned } from './useAlign'

/** The two wheels edge-on as a view shows them, in units of the larger radius; errors drawn `k` times as large. Drawing only. */
export type Point = [number, number]
export interface Drawn {
  k: number
  moving: Point[]
  still: Point[]
  ghost: Point[]
  body: Point[]
  ghostBody: Point[]
  shaft: [Point, Point]
  stillShaft: [Point, Point]
  movingPlane: [Point, Point]
  stillPlane: [Point, Point]
  /** The shaft's far end as it stands, and where it belongs. */
  far: [Point, Point]
  /** Face points of the method, by number or letter. */
  dots: { at: Point; text: string }[]
  lines: { a: Point; b: Point; kind: 'edge' | 'beam' | 'tape' }[]
  levels: { at: Point; turn: number }[]
  outward: [Point, Point]
  box: [number, number, number, number]
}

const HALF = 0.15 // of a wheel's width
const BACK = [0.45, 1.75] as const // where the body begins and ends behind the wheel
const WIDE = 0.42
const AT_TOLERANCE = (6 * Math.PI) / 180 // how an error as large as allowed is drawn
const MOST = (15 * Math.PI) / 180
const STEPS = [40, 30, 25, 20, 15, 12, 10, 8, 6, 5, 4, 3, 2, 1]

/** How many times as large the errors are drawn: what is allowed shows as a few degrees, and nothing leaves the page. */
export function enlarged(a: Aligned): number {
  const of = (key: string) => a.errors.find((e) => e.key === key)!
  const worst = Math.max(Math.abs(of('angle').value ?? 0), Math.abs(of('twist').value ?? 0))
  const radius = Math.max(a.pair.moving_radius_m, a.pair.still_radius_m)
  const off = Math.abs(of('offset').value ?? 0) / radius
  const most = Math.min(AT_TOLERANCE / of('angle').allowed, worst ? MOST / worst : 40, off ? 0.6 / off : 40)
  return STEPS.find((s) => s <= most) ?? 1
}

const add = (p: Point, q: Point, by = 1): Point => [p[0] + q[0] * by, p[1] + q[1] * by]

export function drawn(a: Aligned, view: Aligned['views'][number], method: string): Drawn {
  const k = enlarged(a)
  const value = (key: string) => a.errors.find((e) => e.key === key)?.value ?? 0
  const big = Math.max(a.pair.moving_radius_m, a.pair.still_radius_m)
  const rm = a.pair.moving_radius_m / big
  const rs = a.pair.still_radius_m / big
  const plane = view.key === 'plane'
  const apart = Math.min(Math.max(a.pair.centre_m / big, rm + rs + 0.45), rm + rs + 1.1)
  // Page: right, down.
  const flip = (p: number[]): Point => [p[0]!, -p[1]!]
  const x = flip(view.x)
  const across = flip(plane ? view.u : view.v)
  const tilt = Math.tan(k * value(plane ? 'angle' : 'twist')) * (plane ? 1 : -1)
  const long = Math.hypot(1, tilt)
  const s: Point = [(x[0] + tilt * across[0]) / long, (x[1] + tilt * across[1]) / long]
  const f: Point = [(across[0] - tilt * x[0]) / long, (across[1] - tilt * x[1]) / long]
  const stands: Point = plane ? [across[0] * apart, across[1] * apart] : [0, 0]
  const centre: Point = [(x[0] * k * value('offset')) / big, (x[1] * k * value('offset')) / big]
  const wheel = (c: Point, to: Point, face: Point, r: number): Point[] =>
    ([[HALF, r], [HALF, -r], [-HALF, -r], [-HALF, r]] as const).map(([i, j]) => add(add(c, to, i), face, j)) // prettier-ignore
  const body = (c: Point, to: Point, face: Point): Point[] =>
    ([[-BACK[0], WIDE], [-BACK[0], -WIDE], [-BACK[1], -WIDE], [-BACK[1], WIDE]] as const).map(([i, j]) => add(add(c, to, i), face, j)) // prettier-ignore
  const shaft = (c: Point, to: Point, back: number): [Point, Point] => [add(c, to, -back), add(c, to, HALF + 0.12)]

  const near = add(add(centre, s, HALF), f, rm)
  const away = add(add(centre, s, HALF), f, -rm)
  const four: Point[] = [add(add(stands, x, HALF), across, rs), add(add(stands, x, HALF), across, -rs), near, away]
  const out: Drawn = {
    k,
    moving: wheel(centre, s, f, rm),
    still: wheel(stands, x, across, rs),
    ghost: wheel([0, 0], x, across, rm),
    body: body(centre, s, f),
    ghostBody: body([0, 0], x, across),
    shaft: shaft(centre, s, BACK[0]),
    stillShaft: shaft(stands, x, plane ? 0.75 : 0.4),
    movingPlane: [add(centre, f, rm + 0.16), add(centre, f, -rm - 0.16)],
    stillPlane: [add(stands, across, rs + 0.16), add(stands, across, -rs - 0.16)],
    far: [add(centre, s, -BACK[1] - 0.1), add([0, 0], x, -BACK[1] - 0.1)],
    dots: [],
    lines: [],
    levels: [],
    outward: [0.3, 0.62].map((d) => add(add([0, 0], x, HALF + d), across, -rm - 0.1)) as [Point, Point],
    box: [0, 0, 0, 0],
  }
  if (plane && (method === 'straightedge' || method === 'string')) {
    out.dots = four.map((at, i) => ({ at, text: String(i + 1) }))
    const [a1, b1] = method === 'string' ? [four[0]!, four[3]!] : resting(four, x)
    const lift = method === 'string' ? 0.14 : 0.02
    const stretch = (p: Point, q: Point): Point => add(p, [p[0] - q[0], p[1] - q[1]], 0.1)
    out.lines.push({ a: add(stretch(a1, b1), x, lift), b: add(stretch(b1, a1), x, lift), kind: 'edge' })
  }
  const two = (first: string, second: string) => [
    { at: near, text: first },
    { at: away, text: second },
  ]
  if (!plane && method === 'clock') out.dots = two('1', '2')
  if (method === 'one_head') out.dots = plane ? two('1', '2') : two('3', '4')
  if (plane && method === 'two_heads') {
    out.lines.push({ a: centre, b: add(centre, f, apart - 0.05), kind: 'beam' })
    out.lines.push({ a: stands, b: add(stands, across, -apart + 0.05), kind: 'beam' })
  }
  if (plane && method === 'tape')
    for (const at of [0.28, -0.4]) out.lines.push({ a: add(centre, s, at), b: add(stands, x, at), kind: 'tape' })
  // A level lies on the shaft where the page shows what is upright.
  if (method === 'level' && (plane ? a.pair.lie !== 'level' : a.pair.lie === 'level')) {
    const turn = (to: Point) => (Math.atan2(to[1], to[0]) * 180) / Math.PI
    out.levels = [{ at: add(centre, s, 0.42), turn: turn(s) }]
    if (plane) out.levels.push({ at: add(stands, x, 0.42), turn: turn(x) })
  }
  const all = [...out.moving, ...out.still, ...out.body, ...out.ghostBody, ...out.outward, ...out.far, ...out.movingPlane, ...out.stillPlane] // prettier-ignore
  const xs = all.map((p) => p[0])
  const ys = all.map((p) => p[1])
  const pad = 0.22
  out.box = [
    Math.min(...xs) - pad,
    Math.min(...ys) - pad,
    Math.max(...xs) - Math.min(...xs) + 2 * pad,
    Math.max(...ys) - Math.min(...ys) + 2 * pad,
  ]
  return out
}

/** The two points that a stiff edge laid on from outside rests on: the pair with every other point behind it. */
function resting(points: Point[], out: Point): [Point, Point] {
  const height = (p: Point) => p[0] * out[0] + p[1] * out[1]
  const along = (p: Point) => p[0] * -out[1] + p[1] * out[0]
  let best: [Point, Point] = [points[0]!, points[3]!]
  let least = Infinity
  for (const p of points)
    for (const q of points) {
      if (along(q) - along(p) < 1e-9) continue
      const slope = (height(q) - height(p)) / (along(q) - along(p))
      const gaps = points.map((r) => height(p) + slope * (along(r) - along(p)) - height(r))
      if (Math.min(...gaps) < -1e-9) continue
      const sum = gaps.reduce((n, g) => n + g, 0)
      if (sum < least) [least, best] = [sum, [p, q]]
    }
  return best
}
