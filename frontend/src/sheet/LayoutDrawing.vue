<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import type { Layout } from '../api/client'
import { inSystem, say } from '../settings'
import { type Label, placeLabels, textWidth } from './labels'
import { beltLine, frameOf } from './layoutPath'

/** Many wheels to scale: the belt round them, how each turns, which run is tight. Zoom and pan by wheel, touch, keys or buttons. */
const { layout, focus, height: beltHeight } = defineProps<{ layout: Layout | null; focus: number; height: number }>()

const box = ref<HTMLElement>()
const { width, height } = useElementSize(box)
const narrow = computed(() => width.value < 560 || height.value < 260)
const running = ref(false)
const zoom = ref(1)
const shift = ref({ x: 0, y: 0 })
function fitAll(): void {
  zoom.value = 1
  shift.value = { x: 0, y: 0 }
}
watch(() => layout?.wheels.length, fitAll)
const base = computed(() => (layout ? frameOf(layout.wheels, width.value, height.value, narrow.value ? 34 : 78) : null))
const frame = computed(() => {
  const b = base.value
  if (!b) return null
  const cx = width.value / 2
  const cy = height.value / 2
  return {
    scale: b.scale * zoom.value,
    x: (m: number) => cx + (b.x(m) - cx) * zoom.value + shift.value.x,
    y: (m: number) => cy + (b.y(m) - cy) * zoom.value + shift.value.y,
  }
})
function zoomBy(factor: number): void {
  zoom.value = Math.min(8, Math.max(0.5, zoom.value * factor))
}
function wheelZoom(event: WheelEvent): void {
  zoomBy(event.deltaY < 0 ? 1.12 : 1 / 1.12)
}
// One pointer pans, two zoom.
const held = new Map<number, { x: number; y: number }>()
function down(event: PointerEvent): void {
  held.set(event.pointerId, { x: event.clientX, y: event.clientY })
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function move(event: PointerEvent): void {
  const was = held.get(event.pointerId)
  if (!was) return
  const others = [...held.entries()].filter(([id]) => id !== event.pointerId).map(([, p]) => p)
  const now = { x: event.clientX, y: event.clientY }
  const other = others[0]
  if (other) {
    const before = Math.hypot(was.x - other.x, was.y - other.y)
    if (before > 0) zoomBy(Math.hypot(now.x - other.x, now.y - other.y) / before)
  } else shift.value = { x: shift.value.x + now.x - was.x, y: shift.value.y + now.y - was.y }
  held.set(event.pointerId, now)
}
const up = (event: PointerEvent) => held.delete(event.pointerId)
const STEP = 40
const KEYS: Record<string, () => void> = {
  '+': () => zoomBy(1.2),
  '=': () => zoomBy(1.2),
  '-': () => zoomBy(1 / 1.2),
  '0': fitAll,
  ArrowLeft: () => (shift.value = { ...shift.value, x: shift.value.x + STEP }),
  ArrowRight: () => (shift.value = { ...shift.value, x: shift.value.x - STEP }),
  ArrowUp: () => (shift.value = { ...shift.value, y: shift.value.y + STEP }),
  ArrowDown: () => (shift.value = { ...shift.value, y: shift.value.y - STEP }),
}
function key(event: KeyboardEvent): void {
  const act = KEYS[event.key]
  if (!act || event.altKey || event.ctrlKey || event.metaKey) return
  event.preventDefault()
  event.stopPropagation()
  act()
}

const scene = computed(() => {
  const f = frame.value
  if (!f || !layout) return null
  return {
    belt: beltLine(layout, f),
    thickness: Math.max(3, beltHeight * f.scale),
    wheels: layout.wheels.map((w, i) => ({
      ...w,
      i,
      cx: f.x(w.x_m),
      cy: f.y(w.y_m),
      r: w.rim_radius_m * f.scale,
    })),
    runs: layout.runs.map((r) => ({
      ...r,
      x1: f.x(r.x1_m),
      y1: f.y(r.y1_m),
      x2: f.x(r.x2_m),
      y2: f.y(r.y2_m),
    })),
  }
})
const SIZE = 13.5
const WORD: Record<string, string> = { tight: 'tight', slack: 'slack' }
interface Text extends Label {
  lines: { text: string; class: string }[]
}
const texts = computed<Text[]>(() => {
  const s = scene.value
  if (!s) return []
  const named: Text[] = s.wheels.map((w) => {
    const lines = [
      { text: w.name, class: w.role === 'driver' ? 'strong ember' : w.role === 'driven' ? 'strong quench' : 'strong' },
    ]
    if (!narrow.value && w.wrap) lines.push({ text: `wrap ${w.wrap}`, class: '' })
    const half = Math.max(...lines.map((l) => textWidth(l.text, SIZE))) / 2 + 6
    const reach = w.r + 14
    const tall = lines.length * 17
    return {
      key: `w${w.i}`,
      lines,
      width: half * 2,
      height: tall,
      places: [
        { x: w.cx, y: w.cy - reach - tall / 2 },
        { x: w.cx, y: w.cy + reach + tall / 2 },
        { x: w.cx + reach + half, y: w.cy },
        { x: w.cx - reach - half, y: w.cy },
        { x: w.cx + reach + half, y: w.cy - reach },
        { x: w.cx - reach - half, y: w.cy + reach },
        { x: w.cx, y: w.cy },
      ],
    }
  })
  const pulls: Text[] = s.runs
    .map((r, i) => ({ r, i }))
    .filter(({ r }) => r.pull)
    .map(({ r, i }) => {
      const text = WORD[r.pull]!
      return {
        key: `r${i}`,
        lines: [{ text, class: r.pull === 'tight' ? 'ember' : '' }],
        width: textWidth(text, SIZE) + 10,
        height: 18,
        places: [0.5, 0.35, 0.65, 0.2, 0.8].map((t) => ({
          x: r.x1 + (r.x2 - r.x1) * t,
          y: r.y1 + (r.y2 - r.y1) * t - 12,
        })),
      }
    })
  return [...named, ...pulls]
})
const placed = computed(() => {
  const s = scene.value
  if (!s) return []
  const bounds = { x: 4, y: 4, width: width.value - 8, height: height.value - 8 }
  const hubs = s.wheels.map((w) => ({ x: w.cx - 7, y: w.cy - 7, width: 14, height: 14, owner: `w${w.i}` }))
  // The belt itself: boxes strung along each run, so that no label lies on it.
  const strung = s.runs.flatMap((r) => {
    const count = Math.max(1, Math.round(Math.hypot(r.x2 - r.x1, r.y2 - r.y1) / 14))
    return Array.from({ length: count }, (_, k) => {
      const t = (k + 0.5) / count
      return { x: r.x1 + (r.x2 - r.x1) * t - 6, y: r.y1 + (r.y2 - r.y1) * t - 6, width: 12, height: 12 }
    })
  })
  const found = placeLabels(texts.value, [...hubs, ...strung], bounds)
  return texts.value.flatMap((t) => {
    const at = found.find((p) => p.key === t.key)
    return at ? [{ ...t, ...at, lines: t.lines }] : []
  })
})
const alt = computed(() => {
  if (!layout?.wheels.length) return 'No wheels placed yet'
  const turn = (t: number) => (t ? `, turns ${t > 0 ? 'counter-clockwise' : 'clockwise'}` : '')
  return layout.wheels
    .map(
      (w, i) =>
        `${i + 1} ${w.name}, ${w.role}, belt on its ${w.contact}${turn(w.turns)}${w.wrap ? `, wrap ${w.wrap}` : ''}`,
    )
    .join('; ')
})
</script>

<template>
  <div
    ref="box"
    class="frame"
    tabindex="0"
    aria-label="Drawing: plus, minus and 0 zoom, arrows move"
    role="group"
    @keydown="key"
  >
    <svg
      v-if="scene"
      role="img"
      :aria-label="say(alt)"
      :width="width"
      :height="height"
      :viewBox="`0 0 ${width} ${height}`"
      @wheel.prevent="wheelZoom"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
    >
      <g v-for="w in scene.wheels" :key="w.i" class="wheel" :class="[w.role, { hot: w.i === focus }]">
        <circle :cx="w.cx" :cy="w.cy" :r="w.r" class="rim" />
        <circle :cx="w.cx" :cy="w.cy" :r="Math.max(3, Math.min(w.r * 0.24, 14))" class="hub" />
        <path
          v-if="w.turns && w.r > 12"
          class="turn"
          :class="{ back: w.turns < 0 }"
          :transform="`translate(${w.cx} ${w.cy}) scale(${w.turns > 0 ? 1 : -1} 1)`"
          :d="`M ${w.r * 0.5} 0 A ${w.r * 0.5} ${w.r * 0.5} 0 0 0 ${-w.r * 0.35} ${-w.r * 0.36} m ${w.r * 0.02} ${-w.r * 0.18} l ${-w.r * 0.02} ${w.r * 0.18} l ${w.r * 0.19} ${w.r * 0.02}`"
        />
      </g>
      <path v-if="scene.belt" :d="scene.belt" class="belt" :stroke-width="scene.thickness" />
      <path v-if="scene.belt" :d="scene.belt" class="cord" :class="{ running }" />
      <g v-for="t in placed" :key="t.key">
        <rect :x="t.x" :y="t.y" :width="t.width" :height="t.height" class="ground" />
        <text
          v-for="(line, i) in t.lines"
          :key="i"
          :x="t.x + t.width / 2"
          :y="t.y + 13 + i * 17"
          text-anchor="middle"
          class="label"
          :class="line.class"
        >
          {{ say(line.text) }}
        </text>
      </g>
    </svg>
    <div v-else class="empty"><slot /></div>
    <p v-if="layout?.length" class="length">
      belt line {{ inSystem(layout.length) }}
      <span v-if="layout.belts.length" class="soft">nearest {{ layout.belts.join(' and ') }}</span>
    </p>
    <p v-if="scene" class="tools no-print">
      <template v-if="!narrow">
        <button type="button" aria-label="Larger" @click="zoomBy(1.25)">+</button>
        <button type="button" aria-label="Smaller" @click="zoomBy(0.8)">−</button>
      </template>
      <button type="button" @click="fitAll">Fit</button>
      <button v-if="scene.belt" type="button" :aria-pressed="running" @click="running = !running">
        {{ running ? 'Stand still' : 'Run' }}
      </button>
    </p>
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  min-height: 0;
  height: 100%;
  overflow: hidden;
  background:
    linear-gradient(var(--grid) 1px, transparent 1px) 0 0 / 28px 28px,
    linear-gradient(90deg, var(--grid) 1px, transparent 1px) 0 0 / 28px 28px;
}
.frame:focus-visible {
  outline-offset: -3px;
}
svg {
  display: block;
  touch-action: none;
  cursor: grab;
  font-family: var(--font);
  font-stretch: 80%;
}
.rim {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.4;
}
.idler .rim {
  stroke-dasharray: 5 3;
}
.hot .rim {
  stroke: var(--ember);
  stroke-width: 2.6;
}
.hub {
  fill: var(--hair);
}
.driver .hub {
  fill: var(--ember);
}
.driven .hub {
  fill: var(--quench);
}
.turn {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.6;
}
.belt {
  fill: none;
  stroke: var(--belt);
  stroke-linejoin: round;
  pointer-events: none;
}
.cord {
  fill: none;
  stroke: var(--cord);
  stroke-width: 1.2;
  stroke-dasharray: 7 5;
  pointer-events: none;
}
.running {
  animation: run 0.5s linear infinite;
}
@keyframes run {
  to {
    stroke-dashoffset: -12;
  }
}
.ground {
  fill: var(--paper);
  opacity: 0.86;
}
.label {
  font-size: 13.5px;
  fill: var(--ink-2);
}
.strong {
  font-weight: 640;
  fill: var(--ink);
}
.label.ember {
  fill: var(--ember);
}
.label.quench {
  fill: var(--quench);
}
.length {
  position: absolute;
  left: 14px;
  bottom: 10px;
  background: var(--paper);
  padding: 2px 6px;
  font-weight: 640;
  font-stretch: 78%;
}
.length .soft {
  font-weight: 400;
  margin-left: 8px;
}
.tools {
  position: absolute;
  right: 10px;
  top: 10px;
  display: flex;
  gap: 4px;
}
.tools button {
  min-width: 40px;
  min-height: 40px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  cursor: pointer;
}
@media (max-width: 760px) {
  .tools {
    top: auto;
    bottom: 6px;
  }
}
.empty {
  height: 100%;
  display: grid;
  place-items: center;
  padding: 24px;
}
</style>
