import { computed, type Ref, watch } from 'vue'

import type { Drawing, Sheet } from '../api/client'
import type { Placed } from '../open/seenMarks'
import { inSystem, settings } from '../settings'
import type { Step } from './TeachDrawing.vue'
import type { Frame } from './layoutPath'
import { beside, type Dimension, hubOf, PUSH_DRAWN, pushedAt, turnTime } from './scene'
import { usePanZoom } from './usePanZoom'
import { beltLoop, fit, gridStep, turnArrow } from './view'

/** What the drive's drawing is told. */
export interface DriveDrawn {
  drawing: Drawing | null
  figures: Sheet['figures']
  station: string
  focus: string
  steps?: Step[]
  machine: string
  dimmed: boolean
  /** Whether a tool is drawn pushing the strand. */
  pushed: boolean
  /** What is open at it: marked where it has a place. */
  findings?: Placed[]
}

type Said = Dimension & { text: string }

/** The drive on the screen, in pixels: wheels, belt, dimension lines, the push of a gauge and the pulls on the shafts. */
export function useDriveScene(props: DriveDrawn, width: Ref<number>, height: Ref<number>) {
  const narrow = computed(() => width.value < 560 || height.value < 260)
  const focusWheel = computed(() => {
    if (!narrow.value || props.station !== 'survey') return undefined
    return props.focus.startsWith('driver_d')
      ? ('driver' as const)
      : props.focus.startsWith('driven_d')
        ? ('driven' as const)
        : undefined
  })

  const shown = (key: string): string => (props.figures[key] ? inSystem(props.figures[key]) : '')

  /** The number of a dimension in the order of measuring, with a tick when it is done. */
  function step(key: string): string {
    const at = (props.steps ?? []).findIndex((s) => s.key === key)
    return at < 0 ? '' : `${at + 1}${props.steps![at]!.done ? ' ✓' : ''} · `
  }

  const base = computed<Frame | null>(() => {
    if (!props.drawing || width.value < 60 || height.value < 60) return null
    const small = narrow.value
    const insets = small ? { top: 30, right: 70, bottom: 34, left: 70 } : { top: 70, right: 110, bottom: 92, left: 110 }
    return fit(props.drawing, width.value, height.value, insets, focusWheel.value)
  })
  const hand = usePanZoom(base, width, height)
  // Another station or another wheel is looked at from the start.
  watch([() => props.station, focusWheel], hand.fitAll)

  const scene = computed(() => {
    const drawing = props.drawing
    const view = hand.frame.value
    if (!drawing || !view) return null
    const wheels = drawing.wheels.map((w) => {
      const cx = view.x(w.x_m)
      const cy = view.y(w.y_m)
      const r = w.outside_radius_m * view.scale
      const { hub, bore } = hubOf(r)
      return {
        ...w,
        cx,
        cy,
        r,
        datum: w.datum_radius_m * view.scale,
        hub,
        bore,
        period: turnTime(w.datum_radius_m * view.scale),
        turn: turnArrow(cx, cy, (r * 0.55 + hub) / 1.6, drawing.clockwise),
      }
    })
    const spans = drawing.spans.map((s) => ({
      x1: view.x(s.x1_m),
      y1: view.y(s.y1_m),
      x2: view.x(s.x2_m),
      y2: view.y(s.y2_m),
      nx: Math.cos(s.normal_rad),
      ny: -Math.sin(s.normal_rad),
      tight: s.tight,
    }))
    const thickness = Math.max(3, drawing.belt_height_m * view.scale)
    return {
      view,
      wheels,
      spans,
      thickness,
      belt: beltLoop(drawing, view, drawing.back_offset_m - drawing.belt_height_m / 2),
      cord: beltLoop(drawing, view, 0),
      grid: gridStep(view.scale, settings.value.system),
    }
  })

  /** Dimension lines for the station, with witness lines from what they measure. */
  const dimensions = computed<Said[]>(() => {
    const s = scene.value
    const [driver, driven] = s?.wheels ?? []
    if (!s || !driver || !driven) return []
    const found: Said[] = []
    const ux = driven.cx - driver.cx
    const uy = driven.cy - driver.cy
    const length = Math.hypot(ux, uy) || 1
    // Off the drive on the side that lies lower on the screen.
    let nx = -uy / length
    let ny = ux / length
    if (ny < 0 || (ny === 0 && nx < 0)) [nx, ny] = [-nx, -ny]
    const out = Math.max(driver.r, driven.r) + s.thickness + (narrow.value ? 12 : 30)
    if (props.figures.centre_distance && !focusWheel.value) {
      const centres = { x1: driver.cx, y1: driver.cy, x2: driven.cx, y2: driven.cy }
      found.push({
        ...beside('centre_distance', centres, nx, ny, out, props.focus === 'centre_distance'),
        text: `${step('centre_distance')}centres ${shown('centre_distance')}`,
      })
    }
    if (props.station === 'survey') {
      for (const w of s.wheels) {
        const key = `${w.role}_outside`
        if (!props.figures[key] || (focusWheel.value && w.role !== focusWheel.value)) continue
        // Across the wheel, square to the centre line.
        const px = -uy / length
        const py = ux / length
        found.push({
          key,
          text: `${step(`${w.role}_diameter`)}${shown(key)}`,
          hot: props.focus === `${w.role}_diameter`,
          x1: w.cx - px * w.r,
          y1: w.cy - py * w.r,
          x2: w.cx + px * w.r,
          y2: w.cy + py * w.r,
          from: [],
        })
      }
    }
    const span = facing.value
    if (props.figures.span && span && (props.station === 'tension' || (props.station === 'survey' && !narrow.value))) {
      const off = narrow.value ? 16 : 34
      found.push({ ...beside('span', span, span.nx, span.ny, off), text: `span ${shown('span')}` })
    }
    return found
  })

  /** The strand a person reaches: the one whose outside faces up. */
  const facing = computed(() => [...(scene.value?.spans ?? [])].sort((a, b) => a.ny - b.ny)[0])

  /** That strand pushed, drawn pushed `PUSH_DRAWN` times too far, to be seen. */
  const push = computed(() => {
    const s = scene.value
    const span = facing.value
    if (!s || !span || !props.drawing?.deflection_m || !props.pushed) return null
    const deep = props.drawing.deflection_m * s.view.scale * PUSH_DRAWN
    return pushedAt(span, deep, narrow.value ? 26 : 64, s.thickness)
  })

  /** The pull on each shaft, at Size: both to one scale, the longer a little under half of the centres. */
  const pulls = computed(() => {
    const s = scene.value
    if (!s || props.station !== 'size') return []
    const most = Math.max(...s.wheels.map((w) => Math.hypot(w.pull_x_n ?? 0, w.pull_y_n ?? 0)))
    const [a, b] = s.wheels
    if (!most || !a || !b) return []
    const reach = Math.max(40, Math.min(0.4 * Math.hypot(a.cx - b.cx, a.cy - b.cy), 190))
    return s.wheels.map((w) => ({
      role: w.role,
      x1: w.cx,
      y1: w.cy,
      x2: w.cx + (reach * (w.pull_x_n ?? 0)) / most,
      y2: w.cy - (reach * (w.pull_y_n ?? 0)) / most,
    }))
  })

  return { narrow, focusWheel, shown, scene, dimensions, push, pulls, hand }
}
export type DriveScene = ReturnType<typeof useDriveScene>
