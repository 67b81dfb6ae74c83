import type { Layout } from '../api/client'
import { inSystem } from '../settings'
import { type Label, type Obstacle, placeLabels, textWidth } from './labels'
import type { Frame } from './layoutPath'

export interface Line {
  text: string
  class: string
}
interface Text extends Label {
  lines: Line[]
  /** What it names, in the picture: a label pushed far from it gets a leader, or is left out when it only says how a run pulls. */
  anchor: { x: number; y: number; reach: number }
  spare?: boolean
}
const FAR = 34
const SIZE = 13.5
const LINE = 17

/** What is written on a layout, each label where it covers neither another nor a belt. */
export function layoutLabels(
  layout: Layout,
  f: Frame,
  width: number,
  height: number,
  narrow: boolean,
  taken: Obstacle[],
  dimensions: { key: string; text: string; x1: number; y1: number; x2: number; y2: number }[] = [],
) {
  const wheels = layout.wheels.map((w, i) => ({ ...w, i, cx: f.x(w.x_m), cy: f.y(w.y_m), r: w.rim_radius_m * f.scale }))
  const texts: Text[] = []
  function add(
    key: string,
    lines: Line[],
    anchor: Text['anchor'],
    places: (half: number, tall: number) => Label['places'],
    spare = false,
  ): void {
    const half = Math.max(...lines.map((l) => textWidth(l.text, SIZE))) / 2 + 6
    const tall = lines.length * LINE
    texts.push({ key, lines, anchor, spare, width: half * 2, height: tall, places: places(half, tall) })
  }
  for (const d of dimensions) {
    const along = (t: number) => ({ x: d.x1 + (d.x2 - d.x1) * t, y: d.y1 + (d.y2 - d.y1) * t })
    const reach = Math.hypot(d.x2 - d.x1, d.y2 - d.y1) / 2
    add(d.key, [{ text: d.text, class: 'strong' }], { ...along(0.5), reach }, () =>
      [0.5, 0.3, 0.7, 1.1, -0.1].map(along),
    )
  }
  for (const w of wheels) {
    const lines = [
      {
        text: w.name,
        class: w.role === 'driver' && !w.shares ? 'strong ember' : w.role === 'driven' ? 'strong quench' : 'strong',
      },
    ]
    const more = [w.speed && !w.shares ? inSystem(w.speed) : '', w.wrap ? `wrap ${w.wrap}` : ''].filter(Boolean)
    if (!narrow && more.length) lines.push({ text: more.join(' · '), class: '' })
    const reach = w.r + 14
    add(`w${w.i}`, lines, { x: w.cx, y: w.cy, reach: w.r }, (half, tall) => [
      { x: w.cx, y: w.cy - reach - tall / 2 },
      { x: w.cx, y: w.cy + reach + tall / 2 },
      { x: w.cx + reach + half, y: w.cy },
      { x: w.cx - reach - half, y: w.cy },
      { x: w.cx + reach + half, y: w.cy - reach },
      { x: w.cx - reach - half, y: w.cy + reach },
      { x: w.cx, y: w.cy },
    ])
  }
  layout.keepers.forEach((k, i) => {
    if (!k.at || (narrow && k.tone !== 'stop')) return
    const [x, y] = [f.x(k.at.x_m), f.y(k.at.y_m)]
    const wrong = k.tone === 'stop' ? (k.state === 'in place' ? ', wrong side' : `, ${k.state}`) : ''
    const lines = [{ text: `${k.name}${wrong}`, class: k.tone === 'stop' ? 'strong ember' : 'strong' }]
    if (!narrow) lines.push({ text: `belt's ${k.side} to it`, class: '' })
    add(`k${i}`, lines, { x, y, reach: 8 }, (half) => [
      { x: x + half + 12, y },
      { x: x - half - 12, y },
      { x, y: y - 24 },
      { x, y: y + 24 },
    ])
  })
  for (const [b, belt] of layout.belts.entries()) {
    belt.runs.forEach((r, i) => {
      if (!r.pull) return
      const [x1, y1, x2, y2] = [f.x(r.x1_m), f.y(r.y1_m), f.x(r.x2_m), f.y(r.y2_m)]
      const along = (t: number) => ({ x: x1 + (x2 - x1) * t, y: y1 + (y2 - y1) * t - 12 })
      const words = [{ text: r.pull, class: r.pull === 'tight' ? 'ember' : '' }]
      const reach = Math.hypot(x2 - x1, y2 - y1) / 2
      add(`r${b}.${i}`, words, { ...along(0.5), reach }, () => [0.5, 0.35, 0.65, 0.2, 0.8].map(along), true)
    })
  }
  for (const t of narrow ? [] : layout.take_ups) {
    t.belts.forEach((stop, i) => {
      if (!stop.at) return
      const [x, y] = [f.x(stop.at.x_m), f.y(stop.at.y_m)]
      add(`t${t.wheel}.${i}`, [{ text: stop.belt, class: '' }], { x, y, reach: 4 }, (half) => [
        { x: x + half + 8, y },
        { x: x - half - 8, y },
        { x, y: y + 16 },
        { x, y: y - 16 },
      ])
    })
  }
  if (layout.carriage) {
    const c = layout.carriage
    const [x, y] = [(f.x(c.near.x_m) + f.x(c.far.x_m)) / 2, (f.y(c.near.y_m) + f.y(c.far.y_m)) / 2]
    const spans = `${inSystem(c.near_span)} | ${inSystem(c.far_span)}`
    const words = [
      { text: 'carriage', class: 'strong' },
      { text: spans, class: '' },
    ]
    add('carriage', words, { x, y, reach: 16 }, () => [
      { x, y: y - 34 },
      { x, y: y + 34 },
    ])
  }

  const bounds = { x: 4, y: 4, width: width - 8, height: height - 8 }
  const found = new Map(placeLabels(texts, [...taken, ...obstacles(layout, wheels, f)], bounds).map((p) => [p.key, p]))
  return texts.flatMap((t) => {
    const at = found.get(t.key)
    if (!at) return []
    // From the anchor to the nearest place of the label's box.
    const x = Math.min(Math.max(t.anchor.x, at.x), at.x + at.width)
    const y = Math.min(Math.max(t.anchor.y, at.y), at.y + at.height)
    const far = Math.hypot(x - t.anchor.x, y - t.anchor.y) > t.anchor.reach + FAR
    if (far && t.spare) return []
    return [{ ...at, lines: t.lines, leader: far ? { x1: t.anchor.x, y1: t.anchor.y, x2: x, y2: y } : null }]
  })
}

type DrawnWheel = Layout['wheels'][number] & { cx: number; cy: number; r: number; i: number }
/** Hubs, keepers, and the belts themselves as boxes strung along each run and each arc. */
function obstacles(layout: Layout, wheels: DrawnWheel[], f: Frame): Obstacle[] {
  const box = (x: number, y: number, half: number, owner?: string): Obstacle => ({
    x: x - half,
    y: y - half,
    width: 2 * half,
    height: 2 * half,
    owner,
  })
  const found = wheels.map((w) => box(w.cx, w.cy, 7, `w${w.i}`))
  for (const w of wheels) {
    const r = w.line_radius_m * f.scale
    const count = w.edge_on ? 0 : Math.round((w.wrap_rad * r) / 14)
    for (let k = 0; k < count; k++) {
      const angle = w.from_rad + w.turns * w.wrap_rad * ((k + 0.5) / count)
      found.push(box(w.cx + r * Math.cos(angle), w.cy - r * Math.sin(angle), 6))
    }
  }
  for (const [i, k] of layout.keepers.entries()) if (k.at) found.push(box(f.x(k.at.x_m), f.y(k.at.y_m), 8, `k${i}`))
  for (const r of layout.belts.flatMap((b) => b.runs)) {
    const [x1, y1, x2, y2] = [f.x(r.x1_m), f.y(r.y1_m), f.x(r.x2_m), f.y(r.y2_m)]
    const count = Math.max(1, Math.round(Math.hypot(x2 - x1, y2 - y1) / 14))
    for (let k = 0; k < count; k++) {
      const t = (k + 0.5) / count
      found.push(box(x1 + (x2 - x1) * t, y1 + (y2 - y1) * t, 6))
    }
  }
  return found
}
