<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Drawing, Sheet } from '../api/client'
import type { Station } from '../router'
import { inSystem, say, settings } from '../settings'
import { type Label, type Obstacle, placeLabels, textWidth } from './labels'
import { SHAPES } from './marks'
import type { Step } from './TeachDrawing.vue'
import { beltLoop, fit, gridStep, turnArrow } from './view'

/** The drive to scale. Each station asks another question of it and so draws other dimensions over it. */
const {
  drawing,
  figures,
  station,
  focus,
  steps = [],
  machine,
  dimmed,
  fresh,
} = defineProps<{
  drawing: Drawing | null
  figures: Sheet['figures']
  station: Station
  focus: string
  steps?: Step[]
  machine: string
  dimmed: boolean
  fresh: boolean
}>()

const frame = ref<HTMLElement>()
const { width, height } = useElementSize(frame)
const narrow = computed(() => width.value < 560 || height.value < 260)
const PUSH_DRAWN = 4

const focusWheel = computed(() => {
  if (!narrow.value || station !== 'survey') return undefined
  return focus.startsWith('driver_d')
    ? ('driver' as const)
    : focus.startsWith('driven_d')
      ? ('driven' as const)
      : undefined
})

const low = computed(() => (fresh ? 'force_new_low' : 'force_low'))
const shown = (key: string): string => (figures[key] ? inSystem(figures[key]) : '')

/** The number of a dimension in the order of measuring, with a tick when it is done. */
function step(key: string): string {
  const at = steps.findIndex((s) => s.key === key)
  return at < 0 ? '' : `${at + 1}${steps[at]!.done ? ' ✓' : ''} · `
}

const scene = computed(() => {
  if (!drawing || width.value < 60 || height.value < 60) return null
  const small = narrow.value
  const insets = small ? { top: 30, right: 70, bottom: 34, left: 70 } : { top: 70, right: 110, bottom: 92, left: 110 }
  const view = fit(drawing, width.value, height.value, insets, focusWheel.value)
  const wheels = drawing.wheels.map((w) => {
    const cx = view.x(w.x_m)
    const cy = view.y(w.y_m)
    const r = w.outside_radius_m * view.scale
    const hub = Math.max(5, Math.min(r * 0.3, 26))
    return {
      ...w,
      cx,
      cy,
      r,
      datum: w.datum_radius_m * view.scale,
      hub,
      bore: hub * 0.36,
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

interface DimensionLine {
  key: string
  x1: number
  y1: number
  x2: number
  y2: number
  from: [number, number, number, number][]
  text: string
  hot: boolean
}

/** Dimension lines for the station, with witness lines from what they measure. */
const dimensions = computed<DimensionLine[]>(() => {
  const s = scene.value
  const [driver, driven] = s?.wheels ?? []
  if (!s || !driver || !driven) return []
  const found: DimensionLine[] = []
  const ux = driven.cx - driver.cx
  const uy = driven.cy - driver.cy
  const length = Math.hypot(ux, uy) || 1
  // Off the drive on the side that lies lower on the screen.
  let nx = -uy / length
  let ny = ux / length
  if (ny < 0 || (ny === 0 && nx < 0)) [nx, ny] = [-nx, -ny]
  const out = Math.max(driver.r, driven.r) + s.thickness + (narrow.value ? 12 : 30)
  if (figures.centre_distance && !focusWheel.value) {
    found.push({
      key: 'centre_distance',
      text: `${step('centre_distance')}centres ${shown('centre_distance')}`,
      hot: focus === 'centre_distance',
      x1: driver.cx + nx * out,
      y1: driver.cy + ny * out,
      x2: driven.cx + nx * out,
      y2: driven.cy + ny * out,
      from: [
        [driver.cx, driver.cy, driver.cx + nx * (out + 6), driver.cy + ny * (out + 6)],
        [driven.cx, driven.cy, driven.cx + nx * (out + 6), driven.cy + ny * (out + 6)],
      ],
    })
  }
  if (station === 'survey') {
    for (const w of s.wheels) {
      const key = `${w.role}_outside`
      if (!figures[key] || (focusWheel.value && w.role !== focusWheel.value)) continue
      // Across the wheel, square to the centre line.
      const px = -uy / length
      const py = ux / length
      found.push({
        key,
        text: `${step(`${w.role}_diameter`)}${shown(key)}`,
        hot: focus === `${w.role}_diameter`,
        x1: w.cx - px * w.r,
        y1: w.cy - py * w.r,
        x2: w.cx + px * w.r,
        y2: w.cy + py * w.r,
        from: [],
      })
    }
  }
  const span = facing.value
  if (figures.span && span && (station === 'tension' || (station === 'survey' && !narrow.value))) {
    const off = narrow.value ? 16 : 34
    found.push({
      key: 'span',
      text: `span ${shown('span')}`,
      hot: false,
      x1: span.x1 + span.nx * off,
      y1: span.y1 + span.ny * off,
      x2: span.x2 + span.nx * off,
      y2: span.y2 + span.ny * off,
      from: [
        [span.x1, span.y1, span.x1 + span.nx * (off + 6), span.y1 + span.ny * (off + 6)],
        [span.x2, span.y2, span.x2 + span.nx * (off + 6), span.y2 + span.ny * (off + 6)],
      ],
    })
  }
  return found
})

/** The strand a person reaches: the one whose outside faces up. */
const facing = computed(() => [...(scene.value?.spans ?? [])].sort((a, b) => a.ny - b.ny)[0])

/** That strand pushed, drawn pushed `PUSH_DRAWN` times too far, to be seen. */
const push = computed(() => {
  const s = scene.value
  const span = facing.value
  if (!s || !span || !drawing?.deflection_m || station !== 'tension') return null
  const mx = (span.x1 + span.x2) / 2
  const my = (span.y1 + span.y2) / 2
  const deep = drawing.deflection_m * s.view.scale * PUSH_DRAWN
  const px = mx - span.nx * deep
  const py = my - span.ny * deep
  const stem = narrow.value ? 26 : 64
  return {
    span,
    mx,
    my,
    px,
    py,
    tail: { x: mx + span.nx * stem, y: my + span.ny * stem },
    path: `M ${span.x1} ${span.y1} L ${px} ${py} L ${span.x2} ${span.y2}`,
  }
})

/** The pull on each shaft, at Size: both to one scale, the longer a little under half of the centres. */
const pulls = computed(() => {
  const s = scene.value
  if (!s || station !== 'size') return []
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

type TextLine = Text['lines'][number]
const MARK = 16
/** A number on the drawing wears the mark of its weakest input, like every other. */
const mark = (line: TextLine): string => {
  const figure = line.of ? figures[line.of] : undefined
  return figure ? SHAPES[figure.weakest] : ''
}
const bare = (line: TextLine): number => textWidth(line.text, line.size) * (line.strong ? 1.1 : 1)
const lineWidth = (line: TextLine): number => bare(line) + (mark(line) ? MARK : 0)

interface Text {
  key: string
  lines: { text: string; size: number; strong?: boolean; class?: string; of?: string }[]
  places: { x: number; y: number }[]
}

const texts = computed<Text[]>(() => {
  const s = scene.value
  const [driver, driven] = s?.wheels ?? []
  if (!s || !driver || !driven) return []
  const small = narrow.value
  const size = small ? 12 : 13.5
  const found: Text[] = []
  const probe = push.value
  if (probe && figures.force_low) {
    const force = {
      text: `${shown(low.value)} to ${shown('force_high')}`,
      size: small ? 15 : 21,
      strong: true,
      class: 'ember',
      of: low.value,
    }
    found.push({
      key: 'push',
      lines: [force],
      places: [16, 24, 36].map((o) => ({
        x: probe.tail.x + probe.span.nx * o * 2.2,
        y: probe.tail.y + probe.span.ny * o,
      })),
    })
    found.push({
      key: 'deep',
      lines: [{ text: `push ${shown('deflection')}`, size: size + 2, strong: true, class: 'ember', of: 'deflection' }],
      places: [30, 40, 55].map((o) => ({ x: probe.px - probe.span.nx * o, y: probe.py - probe.span.ny * o })),
    })
  }
  for (const line of dimensions.value) {
    const mx = (line.x1 + line.x2) / 2
    const my = (line.y1 + line.y2) / 2
    const along = (t: number) => ({ x: line.x1 + (line.x2 - line.x1) * t, y: line.y1 + (line.y2 - line.y1) * t })
    const inWheel = line.key.endsWith('_outside')
    found.push({
      key: line.key,
      lines: [{ text: line.text, size, strong: line.hot, class: line.hot ? 'ember' : '', of: line.key }],
      places: inWheel
        ? [along(0.8), along(0.2), along(1.12), along(-0.12)]
        : line.key === 'span'
          ? [along(0.24), along(0.76), along(0.15)]
          : [{ x: mx, y: my }, along(0.35), along(0.65), along(0.25)],
    })
  }
  for (const w of s.wheels.filter((w) => !focusWheel.value || w.role === focusWheel.value)) {
    const isDriver = w.role === 'driver'
    const dx = Math.sign(w.cx - (isDriver ? driven : driver).cx) || -1
    const lines: Text['lines'] = [
      {
        text: isDriver ? 'DRIVER' : say(machine).toUpperCase(),
        size: small ? 12 : 14,
        strong: true,
        class: isDriver ? 'ember' : 'quench',
      },
    ]
    const speed = isDriver
      ? (figures.tach_driver ?? figures.driver_speed)
      : (figures.tach_driven ?? figures.driven_speed)
    if (!small && speed)
      lines.push({
        text: inSystem(speed),
        size: station === 'speed' ? 19 : 13.5,
        strong: station === 'speed',
        of: speed.key,
      })
    if (!small && station === 'speed' && figures[`${w.role}_rim_speed`])
      lines.push({ text: `rim ${shown(`${w.role}_rim_speed`)}`, size: 13, of: `${w.role}_rim_speed` })
    if (!small && station !== 'speed' && figures[`wrap_${w.role}`])
      lines.push({ text: `wrap ${shown(`wrap_${w.role}`)}`, size: 13, of: `wrap_${w.role}` })
    const reach = w.r + s.thickness + 10
    const wide = Math.max(...lines.map(lineWidth)) / 2
    found.push({
      key: w.role,
      lines,
      places: [
        { x: w.cx + dx * (reach + wide), y: w.cy },
        { x: w.cx, y: w.cy - reach - lines.length * 9 },
        { x: w.cx, y: w.cy + reach + lines.length * 9 },
        { x: w.cx - dx * (reach + wide), y: w.cy - reach * 0.6 },
      ],
    })
  }
  for (const p of pulls.value) {
    found.push({
      key: `pull-${p.role}`,
      lines: [{ text: shown('shaft_pull'), size: small ? 13 : 17, strong: true, of: 'shaft_pull' }],
      places: [0.55, 0.8, 1.1, 0.3].flatMap((t) =>
        [18, -18].map((o) => ({ x: p.x1 + (p.x2 - p.x1) * t, y: p.y1 + (p.y2 - p.y1) * t + o })),
      ),
    })
  }
  if (!small) {
    for (const span of s.spans) {
      const strand = shown(span.tight ? 'tight_strand' : 'slack_strand')
      const plain = span.tight ? 'tight side, pulls' : 'slack side'
      const text = station === 'size' && strand ? `${span.tight ? 'tight' : 'slack'} ${strand}` : plain
      const inside = 18 + s.thickness / 2
      const at = (t: number) => ({
        x: span.x1 + (span.x2 - span.x1) * t - span.nx * inside,
        y: span.y1 + (span.y2 - span.y1) * t - span.ny * inside,
      })
      found.push({
        key: text,
        lines: [
          {
            text: station === 'speed' && !span.tight && figures.belt_speed ? `belt ${shown('belt_speed')}` : text,
            size: 13,
            class: 'soft',
            of:
              station === 'speed' && !span.tight
                ? 'belt_speed'
                : station === 'size' && strand
                  ? span.tight
                    ? 'tight_strand'
                    : 'slack_strand'
                  : undefined,
          },
        ],
        places: [at(0.5), at(0.35), at(0.65), at(0.2)],
      })
    }
  }
  return found
})

const labels = computed(() => {
  const s = scene.value
  if (!s) return []
  const boxes: Label[] = texts.value.map((t) => ({
    key: t.key,
    width: Math.max(...t.lines.map(lineWidth)),
    height: t.lines.reduce((sum, l) => sum + l.size * 1.25, 2),
    places: t.places,
  }))
  const obstacles: Obstacle[] = s.wheels.map((w) => ({
    x: w.cx - w.hub * 1.6,
    y: w.cy - w.hub * 1.6,
    width: w.hub * 3.2,
    height: w.hub * 3.2,
  }))
  for (const span of s.spans) {
    for (let t = 0.04; t < 1; t += 0.04) {
      const x = span.x1 + (span.x2 - span.x1) * t
      const y = span.y1 + (span.y2 - span.y1) * t
      const r = s.thickness / 2 + 1
      obstacles.push({ x: x - r, y: y - r, width: 2 * r, height: 2 * r })
    }
  }
  for (const w of s.wheels) {
    for (let a = 0; a < 24; a++) {
      const angle = (a * Math.PI) / 12
      obstacles.push({
        x: w.cx + w.r * Math.cos(angle) - 5,
        y: w.cy + w.r * Math.sin(angle) - 5,
        width: 10,
        height: 10,
      })
    }
  }
  const sample = (x1: number, y1: number, x2: number, y2: number, owner?: string) => {
    const n = Math.max(2, Math.round(Math.hypot(x2 - x1, y2 - y1) / 8))
    for (let i = 0; i <= n; i++)
      obstacles.push({ x: x1 + ((x2 - x1) * i) / n - 2, y: y1 + ((y2 - y1) * i) / n - 2, width: 4, height: 4, owner })
  }
  for (const d of dimensions.value) sample(d.x1, d.y1, d.x2, d.y2, d.key)
  for (const p of pulls.value) sample(p.x1, p.y1, p.x2, p.y2)
  if (push.value) {
    const { span, px, py, mx, my, tail } = push.value
    sample(span.x1, span.y1, px, py)
    sample(px, py, span.x2, span.y2)
    sample(mx, my, tail.x, tail.y)
  }
  const foot = narrow.value ? 4 : 34
  const bounds = { x: 6, y: 6, width: width.value - 12, height: height.value - 12 - foot }
  const lines = new Map(texts.value.map((t) => [t.key, t.lines]))
  return placeLabels(boxes, obstacles, bounds).map((box) => {
    let y = box.y
    return {
      ...box,
      lines: (lines.get(box.key) ?? []).map((l) => ({
        ...l,
        x: box.x + box.width / 2 + (mark(l) ? MARK / 2 : 0),
        mark: mark(l),
        markX: box.x + (box.width - lineWidth(l)) / 2 + 1,
        y: (y += l.size * 1.25) - l.size * 0.3,
      })),
    }
  })
})

const described = computed(() => {
  if (!drawing) return 'No drawing yet'
  const tight = drawing.spans[0]?.tight ? 'upper' : 'lower'
  return say(
    `The drive to scale: driver sheave ${shown('driver_outside')}, driven sheave ${shown('driven_outside')}, centres ${shown('centre_distance')}; the ${tight} strand pulls.`,
  )
})
const arms = (r: number) => (r > 46 ? (r > 90 ? 6 : 5) : 0)
</script>

<template>
  <div ref="frame" class="frame" :class="{ dimmed }">
    <svg
      v-if="scene"
      :viewBox="`0 0 ${width} ${height}`"
      :width="width"
      :height="height"
      role="img"
      :aria-label="described"
    >
      <defs>
        <pattern
          id="grid"
          :width="scene.grid.metres * scene.view.scale"
          :height="scene.grid.metres * scene.view.scale"
          patternUnits="userSpaceOnUse"
          :x="scene.wheels[0]!.cx"
          :y="scene.wheels[0]!.cy"
        >
          <path
            :d="`M ${scene.grid.metres * scene.view.scale} 0 H 0 V ${scene.grid.metres * scene.view.scale}`"
            class="grid"
          />
        </pattern>
        <marker
          id="arrow"
          viewBox="0 0 10 6"
          refX="9.5"
          refY="3"
          markerWidth="11"
          markerHeight="7"
          markerUnits="userSpaceOnUse"
          orient="auto-start-reverse"
        >
          <path d="M0 0L10 3L0 6z" fill="context-stroke" />
        </marker>
      </defs>
      <rect :width="width" :height="height" fill="url(#grid)" />
      <g v-for="w in scene.wheels" :key="w.role" :class="w.role">
        <circle :cx="w.cx" :cy="w.cy" :r="w.r" class="rim" />
        <circle
          v-if="w.r > 24"
          :cx="w.cx"
          :cy="w.cy"
          :r="Math.max(w.r * 0.8, w.r - scene.thickness * 1.9)"
          class="hairline"
        />
        <path
          v-for="n in arms(w.r)"
          :key="n"
          class="arm"
          :d="`M ${w.cx + w.hub * Math.cos((n * 2 * Math.PI) / arms(w.r))} ${w.cy + w.hub * Math.sin((n * 2 * Math.PI) / arms(w.r))} L ${w.cx + Math.max(w.r * 0.8, w.r - scene.thickness * 1.9) * Math.cos((n * 2 * Math.PI) / arms(w.r))} ${w.cy + Math.max(w.r * 0.8, w.r - scene.thickness * 1.9) * Math.sin((n * 2 * Math.PI) / arms(w.r))}`"
        />
        <circle :cx="w.cx" :cy="w.cy" :r="w.hub" class="hub" />
        <circle :cx="w.cx" :cy="w.cy" :r="w.bore" class="bore" />
        <path class="turn" :d="w.turn.arc" />
        <path class="turn" :d="w.turn.head" />
      </g>
      <path :d="scene.belt" class="belt" :stroke-width="scene.thickness" />
      <path v-if="scene.thickness > 5" :d="scene.cord" class="cord" />
      <circle v-for="w in scene.wheels" :key="`d-${w.role}`" :cx="w.cx" :cy="w.cy" :r="w.datum" class="datum" />
      <g v-if="!focusWheel">
        <template v-for="(s, i) in scene.spans" :key="i">
          <line
            v-if="s.tight"
            class="pull"
            :x1="s.x2 - s.nx * (scene.thickness / 2 + 6) + (s.x1 - s.x2) * 0.06"
            :y1="s.y2 - s.ny * (scene.thickness / 2 + 6) + (s.y1 - s.y2) * 0.06"
            :x2="s.x1 - s.nx * (scene.thickness / 2 + 6) + (s.x2 - s.x1) * 0.06"
            :y2="s.y1 - s.ny * (scene.thickness / 2 + 6) + (s.y2 - s.y1) * 0.06"
            marker-end="url(#arrow)"
          />
        </template>
      </g>
      <template v-if="push">
        <path :d="push.path" class="pushed" />
        <line
          :x1="push.tail.x"
          :y1="push.tail.y"
          :x2="push.mx + push.span.nx * (scene.thickness / 2 + 2)"
          :y2="push.my + push.span.ny * (scene.thickness / 2 + 2)"
          class="force"
          marker-end="url(#arrow)"
        />
      </template>
      <line
        v-for="p in pulls"
        :key="`p-${p.role}`"
        :x1="p.x1"
        :y1="p.y1"
        :x2="p.x2"
        :y2="p.y2"
        class="shaft-pull"
        marker-end="url(#arrow)"
      />
      <g v-for="d in dimensions" :key="d.key" class="dimension" :class="{ hot: d.hot }">
        <line v-for="(f, i) in d.from" :key="i" :x1="f[0]" :y1="f[1]" :x2="f[2]" :y2="f[3]" class="witness" />
        <line :x1="d.x1" :y1="d.y1" :x2="d.x2" :y2="d.y2" marker-start="url(#arrow)" marker-end="url(#arrow)" />
      </g>
      <g v-for="l in labels" :key="l.key">
        <rect :x="l.x" :y="l.y" :width="l.width" :height="l.height" class="ground" />
        <template v-for="(line, i) in l.lines" :key="`m${i}`">
          <path
            v-if="line.mark"
            :d="line.mark"
            :transform="`translate(${line.markX} ${line.y - 9.5}) scale(0.78)`"
            class="mark"
          />
        </template>
        <text
          v-for="(line, i) in l.lines"
          :key="i"
          :x="line.x"
          :y="line.y"
          :font-size="line.size"
          :class="[line.class, { strong: line.strong }]"
        >
          {{ line.text }}
        </text>
      </g>
    </svg>
    <div v-else class="empty"><slot /></div>
    <div v-if="scene" class="plate small">
      <span>{{ focusWheel ? 'one wheel, to scale' : 'to scale' }}, grid {{ scene.grid.label }}</span>
      <span v-if="!narrow">seen from the shaft ends</span>
      <span v-if="pulls.length && !narrow">pulls to one scale</span>
      <span v-if="push && !narrow">push drawn {{ PUSH_DRAWN }} × too deep</span>
      <span v-if="dimmed">working…</span>
    </div>
  </div>
</template>

<style scoped>
.shaft-pull {
  stroke: var(--ink);
  stroke-width: 3;
}
.frame {
  position: relative;
  overflow: hidden;
  min-height: 0;
  height: 100%;
}
.frame svg {
  display: block;
}
.dimmed svg text {
  opacity: 0.45;
}
.grid {
  fill: none;
  stroke: var(--grid);
  stroke-width: 1;
}
.mark {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.5;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.rim {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.hairline,
.datum {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 0.8;
}
.datum {
  stroke-dasharray: 7 3 1.5 3;
  opacity: 0.75;
}
.arm {
  stroke: var(--hair);
  stroke-width: 5;
  stroke-linecap: butt;
}
.hub {
  stroke-width: 1.6;
}
.driver .hub {
  fill: var(--ember-tint);
  stroke: var(--ember);
}
.driven .hub {
  fill: var(--quench-tint);
  stroke: var(--quench);
}
.driver .bore {
  fill: var(--ember);
}
.driven .bore {
  fill: var(--quench);
}
.turn {
  fill: none;
  stroke-width: 2;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.driver .turn {
  stroke: var(--ember);
}
.driven .turn {
  stroke: var(--quench);
}
.belt {
  fill: none;
  stroke: var(--belt);
  stroke-linejoin: round;
}
.cord {
  fill: none;
  stroke: var(--cord);
  stroke-width: 1;
  stroke-dasharray: 5 4;
}
.pull {
  stroke: var(--ink-2);
  stroke-width: 1.4;
}
.pushed {
  fill: none;
  stroke: var(--ember);
  stroke-width: 2;
}
.force {
  stroke: var(--ember);
  stroke-width: 2.6;
}
.dimension line {
  stroke: var(--ink);
  stroke-width: 1;
}
.dimension .witness {
  stroke: var(--ink-2);
  stroke-width: 0.7;
}
.dimension.hot line {
  stroke: var(--ember);
  stroke-width: 1.6;
}
.ground {
  fill: var(--paper);
  opacity: 0.86;
}
.mark_ {
}
text {
  text-anchor: middle;
  fill: var(--ink);
  font-family: var(--font);
  font-stretch: 76%;
  font-weight: 500;
}
text.strong {
  font-weight: 660;
}
text.ember {
  fill: var(--ember);
}
text.quench {
  fill: var(--quench);
}
text.soft {
  fill: var(--ink-2);
}
.plate {
  position: absolute;
  left: 14px;
  bottom: 8px;
  display: flex;
  gap: 14px;
  color: var(--ink-2);
  font-size: 12px;
  font-stretch: 80%;
}
.empty {
  height: 100%;
  display: grid;
  place-items: center;
  padding: 24px;
}
@media (max-width: 760px) {
  .plate {
    left: 8px;
    bottom: 3px;
    font-size: 11px;
  }
}
</style>
