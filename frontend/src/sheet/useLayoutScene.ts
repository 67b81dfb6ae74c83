import { computed, type Ref, ref, watch } from 'vue'

import type { Layout, Sheet } from '../api/client'
import { marksOf, type Placed } from '../open/seenMarks'
import { inSystem, say, settings } from '../settings'
import type { Held } from './layoutEdit'
import { layoutLabels } from './layoutLabels'
import { beltLine, frameOf } from './layoutPath'
import { beside, hubOf, PLAIN, pushedAt, type Scene, turnTime } from './scene'
import { PACE, usePanZoom } from './usePanZoom'
import { gridStep, turnArrow } from './view'

/** What the drawing of many wheels is told. */
export interface LayoutDrawn {
  layout: Layout | null
  /** The wheel that a field is open at. */
  focus: number
  tape?: [number, number] | null
  drag?: boolean
  held?: Held | null
  /** The keepers that may be moved by hand. */
  loose?: number[]
  /** Stages whose pulls are drawn on the wheels. */
  train?: Sheet['train']
  /** What is open at it: marked where it has a place. */
  findings?: Placed[]
  /** At Tension: the belt and the free run of it that is read, and whether a tool pushes it. */
  probe?: { belt: number; run: number; pushed: boolean } | null
}

/** A line of what is written in the corner; on a phone there is one, and the drawing stands above it. */
const ROW = 24
const CORD = 9
const SIZE = 13.5
const ROWS = 17
/** How deep a push is drawn on a free run: as a share of it, deep enough to be seen. */
const PUSHED = 1 / 16

/** The belts round their wheels: how each turns, which run is tight, where keepers stand and take-ups reach. */
export function useLayoutScene(props: LayoutDrawn, width: Ref<number>, height: Ref<number>) {
  const narrow = computed(() => width.value < 560 || height.value < 260)
  // The picture stays put while something is moved in it.
  const fitted = ref<Layout['wheels']>([])
  watch(
    () => props.layout?.wheels,
    (wheels) => wheels && !props.held && (fitted.value = wheels),
    { immediate: true },
  )
  const base = computed(() =>
    frameOf(fitted.value, width.value, height.value - (narrow.value ? ROW : 0), narrow.value ? 30 : 78),
  )
  const view = usePanZoom(base, width, height)
  const frame = view.frame
  watch(() => props.layout?.wheels.length, view.fitAll)
  const movable = (i: number) => (props.drag ?? false) && !props.layout?.wheels[i]?.shares

  const everyLength = computed(() =>
    (props.layout?.belts ?? []).flatMap((b) => {
      if (!b.length) return []
      const name = (props.layout?.belts.length ?? 0) > 1 ? `${b.goes_round} ${b.number} line` : `${b.goes_round} line`
      return [{ number: b.number, text: `${name} ${inSystem(b.length)}`, nearest: b.nearest.join(' and ') }]
    }),
  )
  const lengths = computed(() => {
    const said = everyLength.value
    const together = said.map((l) => l.text.replace(' line', '')).join(' · ')
    return narrow.value && said.length > 1 ? [{ number: 0, text: together, nearest: '' }] : said
  })

  const wheels = computed(() => {
    const [f, layout] = [frame.value, props.layout]
    if (!f || !layout) return []
    return layout.wheels.map((w, i) => {
      const [cx, cy, r] = [f.x(w.x_m), f.y(w.y_m), w.rim_radius_m * f.scale]
      const { hub, bore } = hubOf(r)
      const run = layout.belts[w.belt - 1]?.runs[0]
      const lies = run ? (Math.atan2(run.y1_m - run.y2_m, run.x2_m - run.x1_m) * 180) / Math.PI : 0
      const turns = w.turns && !w.edge_on && r > 12
      return {
        key: `${i}`,
        tone: w.shares ? ('shared' as const) : (w.role as 'driver' | 'driven' | 'idler'),
        cx,
        cy,
        r,
        rail: 0,
        datum: 0,
        hub: r > 20 ? hub : Math.max(3, r * 0.24),
        bore: r > 20 ? bore : Math.max(3, r * 0.24),
        turn: turns ? turnArrow(cx, cy, Math.max(r * 0.5, (r * 0.55 + hub) / 1.6), w.turns < 0) : null,
        back: w.turns > 0,
        period: turnTime(w.line_radius_m * f.scale, PACE * (layout.belts[w.belt - 1]?.pace || 1)),
        edge: w.edge_on ? `translate(${cx} ${cy}) rotate(${lies})` : undefined,
        hot: i === props.focus,
        thing: movable(i) ? { kind: 'wheel' as const, index: i, x_m: w.x_m, y_m: w.y_m } : undefined,
        called: w.name,
        pick: i,
      }
    })
  })
  const keepers = computed(() => {
    const f = frame.value
    return (f ? (props.layout?.keepers ?? []) : []).flatMap((k, i) => {
      if (!k.at || !f) return []
      const at = { x: f.x(k.at.x_m), y: f.y(k.at.y_m) }
      const foot = k.foot ? { x: f.x(k.foot.x_m), y: f.y(k.foot.y_m) } : at
      const turn = (Math.atan2(foot.y - at.y, foot.x - at.x) * 180) / Math.PI
      const thing = { kind: 'keeper' as const, index: i, x_m: k.at.x_m, y_m: k.at.y_m }
      const loose = props.loose?.includes(i)
      return [{ key: `keeper ${i}`, tone: k.tone, at, foot, turn, thing: loose ? thing : undefined, called: k.name }]
    })
  })
  /** The belts' pull on each wheel, to one scale: the longest a sixth of the picture. */
  const arrows = computed(() => {
    const found = (props.train?.stages ?? []).flatMap((s) => s.wheels.filter((w) => w.pull_n && w.pull_deg !== null))
    const most = Math.max(...found.map((w) => w.pull_n!), 0)
    return found.flatMap((w) => {
      const wheel = wheels.value[w.place]
      if (!wheel) return []
      const reach = (Math.min(width.value, height.value) / 6) * (w.pull_n! / most)
      const turn = (w.pull_deg! * Math.PI) / 180
      const [x1, y1] = [wheel.cx, wheel.cy]
      return [{ key: `${w.place}`, x1, y1, x2: x1 + reach * Math.cos(turn), y2: y1 - reach * Math.sin(turn) }]
    })
  })
  /** The free run that is read at Tension, with its outward side. */
  const longest = computed(() => {
    const [f, layout, at] = [frame.value, props.layout, props.probe]
    const belt = at ? layout?.belts[at.belt] : undefined
    const run = at ? belt?.runs[at.run] : undefined
    if (!f || !run || !layout || !belt) return null
    const line = { x1: f.x(run.x1_m), y1: f.y(run.y1_m), x2: f.x(run.x2_m), y2: f.y(run.y2_m) }
    const long = Math.hypot(line.x2 - line.x1, line.y2 - line.y1) || 1
    const driver = layout.wheels[belt.order[0] ?? 0]
    // Outward of the loop: to the right of its travel when it goes round counter-clockwise; y points down.
    const side = (driver?.turns ?? 1) > 0 ? 1 : -1
    return {
      ...line,
      nx: (-side * (line.y2 - line.y1)) / long,
      ny: (side * (line.x2 - line.x1)) / long,
      long,
      text: `span ${inSystem(run.length)}`,
    }
  })
  const tension = computed(() => longest.value !== null)
  const pushed = computed(() =>
    tension.value && props.probe?.pushed
      ? pushedAt(longest.value!, longest.value!.long * PUSHED, narrow.value ? 22 : 48, 4)
      : null,
  )
  /** At Tension the free run to read on; at Survey the wheel whose field is open. */
  const dimensions = computed(() => {
    const found = []
    const run = longest.value
    if (tension.value && run)
      found.push({ ...beside('span', run, run.nx, run.ny, narrow.value ? 14 : 26), text: run.text })
    const [w, wheel] = [props.layout?.wheels[props.focus], wheels.value[props.focus]]
    if (w && wheel && !w.edge_on && wheel.r > 12) {
      const { cx, cy, r } = wheel
      const across = { x1: cx - r * 0.707, y1: cy - r * 0.707, x2: cx + r * 0.707, y2: cy + r * 0.707 }
      found.push({ key: 'across', ...across, from: [], hot: true, text: inSystem(w.diameter) })
    }
    return found
  })
  const marks = computed(() =>
    marksOf(props.findings ?? [], (place) => {
      const wheel = wheels.value.find((w) => w.tone === place)
      if (wheel) return { x: wheel.cx - wheel.r * 0.45, y: wheel.cy + wheel.r * 0.45 }
      const f = frame.value
      const run = props.layout?.belts[0]?.runs.find((r) => r.pull === (place === 'tight strand' ? 'tight' : 'slack'))
      return run && f
        ? { x: f.x(run.x1_m + (run.x2_m - run.x1_m) * 0.3), y: f.y(run.y1_m + (run.y2_m - run.y1_m) * 0.3) }
        : null
    }),
  )
  /** The corners where the length and the buttons stand, and what lies along the drawing's own lines. */
  const taken = computed(() => {
    const tall = ROW * (lengths.value.length + (arrows.value.length && !narrow.value ? 1 : 0)) + 6
    const foot = { x: 8, y: height.value - tall - 8, width: Math.min(340, width.value * 0.6), height: tall }
    const tools = narrow.value
      ? { x: width.value - 130, y: height.value - 50, width: 122, height: 44 }
      : { x: width.value - 222, y: 6, width: 216, height: 46 }
    const lines = [...arrows.value, ...dimensions.value, ...(pushed.value ? [pushed.value.force] : [])]
    const along = lines.flatMap((l) =>
      [0.2, 0.4, 0.6, 0.8, 1].map((t) => ({
        x: l.x1 + (l.x2 - l.x1) * t - 5,
        y: l.y1 + (l.y2 - l.y1) * t - 5,
        width: 10,
        height: 10,
      })),
    )
    return [foot, tools, ...along]
  })
  const texts = computed(() => {
    const [f, layout] = [frame.value, props.layout]
    if (!f || !layout) return []
    const said = dimensions.value.map((d) => ({ ...d, key: `d ${d.key}` }))
    return layoutLabels(layout, f, width.value, height.value, narrow.value, taken.value, said).map((t) => ({
      ...t,
      lines: t.lines.map((line, i) => ({
        text: say(line.text),
        x: t.x + t.width / 2,
        y: t.y + 13 + i * ROWS,
        size: SIZE,
        class: line.class || 'soft',
      })),
    }))
  })

  const scene = computed<Scene | null>(() => {
    const [f, layout, held] = [frame.value, props.layout, props.held]
    if (!f || !layout?.wheels.length) return null
    const [a, b] = (props.tape ?? []).map((k) => layout.wheels[k - 1])
    const at = (p: { x_m: number; y_m: number }) => ({ x: f.x(p.x_m), y: f.y(p.y_m) })
    const between = (p: { x_m: number; y_m: number }, q: { x_m: number; y_m: number }) => ({
      x1: f.x(p.x_m),
      y1: f.y(p.y_m),
      x2: f.x(q.x_m),
      y2: f.y(q.y_m),
    })
    return {
      ...PLAIN,
      grid: { step: gridStep(f.scale, settings.value.system).metres * f.scale, x: f.x(0), y: f.y(0) },
      wheels: [...wheels.value].sort((p, q) => q.r - p.r), // a smaller wheel on the same shaft stays in reach
      belts: layout.belts.map((belt) => {
        const line = beltLine(layout.wheels, belt, f)
        const thickness = Math.max(3, belt.height_m * f.scale)
        return {
          key: `${belt.number}`,
          line,
          cord: line,
          thickness,
          back: false,
          period: CORD / (PACE * (belt.pace || 1)),
        }
      }),
      keepers: keepers.value,
      tracks: layout.take_ups.map((t) => ({
        key: `${t.wheel}`,
        line: t.track.map((p) => `${f.x(p.x_m)},${f.y(p.y_m)}`).join(' '),
        stops: t.belts.flatMap((s) => (s.at ? [{ key: s.belt, ...at(s.at) }] : [])),
      })),
      carriage: layout.carriage && between(layout.carriage.near, layout.carriage.far),
      arrows: arrows.value,
      pushed: pushed.value,
      dimensions: dimensions.value,
      tape: a && b ? between(a, b) : null,
      ghost: held ? { ...at(held), r: held.kind === 'wheel' ? 10 : 6 } : null,
      marks: marks.value,
      texts: texts.value,
    }
  })
  return { narrow, view, frame, scene, lengths, arrows, movable }
}
