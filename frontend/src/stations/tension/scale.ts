import type { Kept, Mark, Tight } from './useTension'

/** Something drawn at one place of the scale. */
export interface Flag {
  key: string
  x: number
  label: string
  text: string
  row: number
  kind: 'slip' | 'target' | 'upper'
  end: 'start' | 'middle' | 'end'
}

const bands = (marks: readonly Mark[]) => marks.filter((m) => m.kind === 'band' || m.kind === 'manual')

/** How far the scale reaches (N): everything that matters in sight, a far upper limit or a wild rule not. */
export function reach(tight: Tight, kept: readonly Kept[]): number {
  const high = Math.max(0, ...bands(tight.marks).map((m) => m.high))
  const slips = Math.max(0, ...tight.marks.filter((m) => m.kind === 'slip').map((m) => m.mid))
  const upper = tight.uppers.flatMap((u) => (u.limit !== null && u.limit !== undefined ? [u.limit] : []))
  const nearest = Math.min(Infinity, ...upper)
  const read = [
    ...tight.strands.map((s) => s.tension + 2 * s.std),
    ...kept.slice(0, 4).map((k) => k.tension + 2 * k.std),
  ]
  const known = Math.max(
    high * 1.3,
    slips * 1.15,
    nearest < 2.5 * high ? nearest * 1.12 : 0,
    ...read.map((r) => r * 1.05),
  )
  // Without a window the rules of thumb say how far it goes.
  return known || Math.max(1, ...tight.marks.filter((m) => m.kind === 'rule').map((m) => m.mid * 2))
}

/** Round numbers along a scale, at most about seven. */
export function ticks(far: number, unit: number): number[] {
  const rough = far / unit / 6
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 5, 10].map((s) => s * power).find((s) => s >= rough) ?? power
  return Array.from({ length: Math.floor(far / unit / step) + 1 }, (_, k) => k * step)
}

/** Flags above the bar, put on rows so that none lies over another. `wide`: pixels a letter takes. */
export function flags(tight: Tight, far: number, width: number, text: (m: Mark) => string, wide = 6.2): Flag[] {
  const ends: number[] = []
  const inner = tight.marks
    .filter((m): m is Mark & { kind: Flag['kind'] } => ['slip', 'target', 'upper'].includes(m.kind) && m.mid <= far)
    .sort((a, b) => a.mid - b.mid)
  return inner.map((m) => {
    const x = (m.mid / far) * width
    const long = Math.max(m.label.length, text(m).length) * wide
    const end = x < long / 2 ? 'start' : x > width - long / 2 ? 'end' : 'middle'
    const left = end === 'start' ? x : end === 'end' ? x - long : x - long / 2
    let row = ends.findIndex((e) => e < left - 8)
    if (row < 0) row = ends.length
    ends[row] = left + long
    return { key: m.key, x, label: m.label, text: text(m), row, kind: m.kind, end }
  })
}
