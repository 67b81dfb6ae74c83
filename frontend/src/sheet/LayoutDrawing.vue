<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { type ComponentPublicInstance, computed, ref, toRef, watch } from 'vue'

import type { Layout, Sheet } from '../api/client'
import { marksOf, type Placed } from '../open/seenMarks'
import SeenMarks from '../open/SeenMarks.vue'
import { inSystem, say } from '../settings'
import DrawingFrame from './DrawingFrame.vue'
import type { Held } from './layoutEdit'
import { layoutLabels } from './layoutLabels'
import { beltLine, frameOf } from './layoutPath'
import { useHeld } from './useHeld'
import { PACE, usePanZoom } from './usePanZoom'

/**
 * Many wheels to scale: the belts round them, how each turns, which run is tight, where keepers stand and take-ups reach.
 * With `drag`, wheels are moved by hand; keepers without a tape and pivots always can be.
 */
const {
  layout,
  focus,
  tape = null,
  drag = false,
  held = null,
  loose = [],
  train = null,
  findings = [],
} = defineProps<{
  layout: Layout | null
  focus: number
  tape?: [number, number] | null
  drag?: boolean
  held?: Held | null
  loose?: number[]
  /** Stages whose pulls are drawn on the wheels. */
  train?: Sheet['train']
  /** What is open at it: marked where it has a place. */
  findings?: Placed[]
}>()
const emit = defineEmits<{ hold: [held: Held]; drop: []; pick: [wheel: number] }>()

const box = ref<ComponentPublicInstance>()
const { width, height } = useElementSize(box)
const narrow = computed(() => width.value < 560 || height.value < 260)
const running = ref(false)
// The picture stays put while something is moved in it.
const fitted = ref<Layout['wheels']>([])
watch(
  () => layout?.wheels,
  (wheels) => wheels && !held && (fitted.value = wheels),
  { immediate: true },
)
const base = computed(() =>
  frameOf(fitted.value, width.value, height.value - (narrow.value ? ROW : 0), narrow.value ? 30 : 78),
)
const view = usePanZoom(base, width, height)
const { frame, fitAll } = view
watch(() => layout?.wheels.length, fitAll)
const hand = useHeld(
  frame,
  toRef(() => held),
  { hold: (h) => emit('hold', h), drop: () => emit('drop') },
)

const scene = computed(() => {
  const f = frame.value
  if (!f || !layout?.wheels.length) return null
  const wheels = layout.wheels.map((w, i) => {
    const belt = layout.belts[w.belt - 1]
    const pace = PACE * (belt?.pace || 1)
    return {
      ...w,
      i,
      cx: f.x(w.x_m),
      cy: f.y(w.y_m),
      r: w.rim_radius_m * f.scale,
      period: (2 * Math.PI * w.line_radius_m * f.scale) / pace,
    }
  })
  return {
    wheels: wheels.sort((a, b) => b.r - a.r), // a smaller wheel on the same shaft stays in reach
    belts: layout.belts.map((b) => ({
      number: b.number,
      line: beltLine(layout.wheels, b, f),
      thickness: Math.max(3, b.height_m * f.scale),
      period: 12 / (PACE * (b.pace || 1)),
    })),
    keepers: layout.keepers.flatMap((k, i) => {
      if (!k.at) return []
      const at = { x: f.x(k.at.x_m), y: f.y(k.at.y_m) }
      const foot = k.foot ? { x: f.x(k.foot.x_m), y: f.y(k.foot.y_m) } : at
      const turn = (Math.atan2(foot.y - at.y, foot.x - at.x) * 180) / Math.PI
      return [{ ...k, i, at, foot, turn, x_m: k.at.x_m, y_m: k.at.y_m }]
    }),
    tracks: layout.take_ups.map((t) => ({
      wheel: t.wheel,
      line: t.track.map((p) => `${f.x(p.x_m)},${f.y(p.y_m)}`).join(' '),
      stops: t.belts.flatMap((b) => (b.at ? [{ belt: b.belt, x: f.x(b.at.x_m), y: f.y(b.at.y_m) }] : [])),
    })),
    carriage: layout.carriage && {
      x1: f.x(layout.carriage.near.x_m),
      y1: f.y(layout.carriage.near.y_m),
      x2: f.x(layout.carriage.far.x_m),
      y2: f.y(layout.carriage.far.y_m),
    },
    pulls: pullLines(f),
    tape: tapeLine(f),
    ghost: held && { x: f.x(held.x_m), y: f.y(held.y_m), r: held.kind === 'wheel' ? 10 : 6 },
  }
})
/** The belts' pull on each wheel, to one scale: the longest a sixth of the picture. */
function pullLines(f: NonNullable<typeof frame.value>) {
  const found = (train?.stages ?? []).flatMap((s) => s.wheels.filter((w) => w.pull_n && w.pull_deg !== null))
  const most = Math.max(...found.map((w) => w.pull_n!), 0)
  return found.flatMap((w) => {
    const wheel = layout?.wheels[w.place]
    if (!wheel) return []
    const reach = (Math.min(width.value, height.value) / 6) * (w.pull_n! / most)
    const [x1, y1, turn] = [f.x(wheel.x_m), f.y(wheel.y_m), (w.pull_deg! * Math.PI) / 180]
    return [{ i: w.place, line: { x1, y1, x2: x1 + reach * Math.cos(turn), y2: y1 - reach * Math.sin(turn) } }]
  })
}
function tapeLine(f: NonNullable<typeof frame.value>) {
  const [a, b] = (tape ?? []).map((k) => layout?.wheels[k - 1])
  return a && b ? { x1: f.x(a.x_m), y1: f.y(a.y_m), x2: f.x(b.x_m), y2: f.y(b.y_m) } : null
}
/** A line of what is written in the corner; on a phone there is one, and the drawing stands above it. */
const ROW = 24
const lengths = computed(() => {
  const said = everyLength.value
  const together = said.map((l) => l.text.replace(' line', '')).join(' · ')
  return narrow.value && said.length > 1 ? [{ number: 0, text: together, nearest: '' }] : said
})
const everyLength = computed(() =>
  (layout?.belts ?? []).flatMap((b) => {
    if (!b.length) return []
    const name = (layout?.belts.length ?? 0) > 1 ? `${b.goes_round} ${b.number} line` : `${b.goes_round} line`
    return [{ number: b.number, text: `${name} ${inSystem(b.length)}`, nearest: b.nearest.join(' and ') }]
  }),
)
/** Where the pulls are drawn: no word lies over them. */
const alongPulls = computed(() =>
  (scene.value?.pulls ?? []).flatMap(({ line }) =>
    [0.4, 0.6, 0.8, 1].map((t) => ({
      x: line.x1 + (line.x2 - line.x1) * t - 5,
      y: line.y1 + (line.y2 - line.y1) * t - 5,
      width: 10,
      height: 10,
    })),
  ),
)
const seen = computed(() =>
  marksOf(findings, (place) => {
    const f = frame.value
    if (!f || !layout) return null
    const wheel = layout.wheels.find((w) => w.role === place)
    if (wheel)
      return {
        x: f.x(wheel.x_m) - wheel.rim_radius_m * f.scale * 0.45,
        y: f.y(wheel.y_m) + wheel.rim_radius_m * f.scale * 0.45,
      }
    const run = layout.belts[0]?.runs.find((r) => r.pull === (place === 'tight strand' ? 'tight' : 'slack'))
    return run
      ? { x: f.x(run.x1_m + (run.x2_m - run.x1_m) * 0.3), y: f.y(run.y1_m + (run.y2_m - run.y1_m) * 0.3) }
      : null
  }),
)
/** The corners where the length and the buttons stand. */
const corners = computed(() => {
  const tall = ROW * (lengths.value.length + (scene.value?.pulls.length && !narrow.value ? 1 : 0)) + 6
  const foot = { x: 8, y: height.value - tall - 8, width: Math.min(340, width.value * 0.6), height: tall }
  const tools = narrow.value
    ? { x: width.value - 130, y: height.value - 50, width: 122, height: 44 }
    : { x: width.value - 222, y: 6, width: 216, height: 46 }
  return [foot, tools]
})
const placed = computed(() =>
  frame.value && layout
    ? layoutLabels(layout, frame.value, width.value, height.value, narrow.value, [
        ...corners.value,
        ...alongPulls.value,
      ])
    : [],
)
const alt = computed(() => {
  if (!layout?.wheels.length) return 'No wheels placed yet'
  const turn = (t: number) => (t ? `, turns ${t > 0 ? 'counter-clockwise' : 'clockwise'}` : '')
  const wheels = layout.wheels.map(
    (w, i) =>
      `${i + 1} ${w.name}, ${w.role}, ${layout?.belts[w.belt - 1]?.goes_round ?? 'belt'} on its ${w.contact}${turn(w.turns)}${w.wrap ? `, wrap ${w.wrap}` : ''}${w.speed ? `, ${inSystem(w.speed)}` : ''}`,
  )
  const keepers = layout.keepers.map(
    (k) => `${k.name}, keeper, belt's ${k.side} to it, ${k.tone === 'stop' ? 'wrong' : k.state}`,
  )
  return [...wheels, ...keepers].join('; ')
})
const movable = (i: number) => drag && !layout?.wheels[i]?.shares
/** What the hand may do to a thing in the drawing. */
const grips = (on: boolean, thing: Held) =>
  on
    ? {
        pointerdown: (e: PointerEvent) => hand.down(e, thing),
        pointermove: hand.move,
        pointerup: hand.up,
        pointercancel: hand.up,
        keydown: (e: KeyboardEvent) => hand.key(e, thing),
        blur: hand.left,
      }
    : {}
type Drawn = { cx: number; cy: number; belt: number; period: number }
/** A wheel seen edge on lies along the runs that meet it. */
function edgeOn(w: Drawn): string {
  const run = layout?.belts[w.belt - 1]?.runs[0]
  const turn = run ? (Math.atan2(run.y1_m - run.y2_m, run.x2_m - run.x1_m) * 180) / Math.PI : 0
  return `translate(${w.cx} ${w.cy}) rotate(${turn})`
}
const spin = (w: Drawn) => ({ animationDuration: `${w.period}s`, transformOrigin: `${w.cx}px ${w.cy}px` })
const at = (kind: Held['kind'], index: number, x_m: number, y_m: number): Held => ({ kind, index, x_m, y_m })
</script>

<template>
  <DrawingFrame
    ref="box"
    v-model:running="running"
    :view="view"
    :drawn="scene !== null"
    :label="say(alt)"
    :narrow="narrow"
    :width="width"
    :height="height"
    :hands="drag || loose.length > 0"
    :runs="lengths.length > 0"
    class="grid"
  >
    <template v-if="scene">
      <polyline v-for="t in scene.tracks" :key="t.wheel" :points="t.line" class="track" />
      <g
        v-for="w in scene.wheels"
        :key="w.i"
        class="wheel"
        :class="[w.shares ? '' : w.role, { hot: w.i === focus, movable: movable(w.i) }]"
        :tabindex="movable(w.i) ? 0 : undefined"
        :role="movable(w.i) ? 'button' : undefined"
        :aria-label="
          movable(w.i) ? say(`${w.name}: arrows move it, Shift for small steps, Enter puts it down`) : undefined
        "
        v-on="grips(movable(w.i), at('wheel', w.i, w.x_m, w.y_m))"
        @click="emit('pick', w.i)"
      >
        <rect
          v-if="w.edge_on"
          :x="-w.r"
          :y="-Math.max(5, w.r * 0.14)"
          :width="2 * w.r"
          :height="Math.max(10, w.r * 0.28)"
          class="rim"
          :transform="edgeOn(w)"
        />
        <template v-else>
          <circle :cx="w.cx" :cy="w.cy" :r="w.r" class="rim" />
          <g v-if="running && w.turns" class="spoke" :class="{ back: w.turns > 0 }" :style="spin(w)">
            <path
              :d="`M ${w.cx} ${w.cy - w.r * 0.86} V ${w.cy + w.r * 0.86} M ${w.cx - w.r * 0.86} ${w.cy} H ${w.cx + w.r * 0.86}`"
            />
          </g>
        </template>
        <circle :cx="w.cx" :cy="w.cy" :r="Math.max(3, Math.min(w.r * 0.24, 14))" class="hub" />
        <path
          v-if="w.turns && w.r > 12 && !w.edge_on && !running"
          class="turn"
          :transform="`translate(${w.cx} ${w.cy}) scale(${w.turns > 0 ? 1 : -1} 1)`"
          :d="`M ${w.r * 0.5} 0 A ${w.r * 0.5} ${w.r * 0.5} 0 0 0 ${-w.r * 0.35} ${-w.r * 0.36} m ${w.r * 0.02} ${-w.r * 0.18} l ${-w.r * 0.02} ${w.r * 0.18} l ${w.r * 0.19} ${w.r * 0.02}`"
        />
      </g>
      <template v-for="b in scene.belts" :key="b.number">
        <path v-if="b.line" :d="b.line" class="belt" :stroke-width="b.thickness" />
        <path
          v-if="b.line"
          :d="b.line"
          class="cord"
          :class="{ running }"
          :style="{ animationDuration: `${b.period}s` }"
        />
      </template>
      <g v-for="t in scene.tracks" :key="`stops ${t.wheel}`">
        <circle v-for="s in t.stops" :key="s.belt" :cx="s.x" :cy="s.y" r="3.5" class="halt" />
      </g>
      <template v-if="scene.carriage">
        <line v-bind="scene.carriage" class="carriage" />
      </template>
      <line v-if="scene.tape" v-bind="scene.tape" class="tape" />
      <g
        v-for="k in scene.keepers"
        :key="`keeper ${k.i}`"
        class="keeper"
        :class="[k.tone, { movable: loose.includes(k.i) }]"
        :tabindex="loose.includes(k.i) ? 0 : undefined"
        :role="loose.includes(k.i) ? 'button' : undefined"
        :aria-label="
          loose.includes(k.i) ? say(`${k.name}: arrows move it, Shift for small steps, Enter puts it down`) : undefined
        "
        v-on="grips(loose.includes(k.i), at('keeper', k.i, k.x_m, k.y_m))"
      >
        <line :x1="k.at.x" :y1="k.at.y" :x2="k.foot.x" :y2="k.foot.y" class="reach" />
        <circle :cx="k.at.x" :cy="k.at.y" r="14" class="grip" />
        <rect x="-4" y="-10" width="5" height="20" :transform="`translate(${k.at.x} ${k.at.y}) rotate(${k.turn})`" />
      </g>
      <circle v-if="scene.ghost" :cx="scene.ghost.x" :cy="scene.ghost.y" :r="scene.ghost.r" class="ghost" />
      <line v-for="p in scene.pulls" :key="`pull ${p.i}`" v-bind="p.line" class="shaft-pull" marker-end="url(#arrow)" />
      <SeenMarks :marks="seen" />
      <g v-for="t in placed" :key="t.key" class="words">
        <line v-if="t.leader" v-bind="t.leader" class="leader" />
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
    </template>
    <template #empty><slot /></template>
    <template #over>
      <div v-if="lengths.length" class="length">
        <p v-for="l in lengths" :key="l.number">
          {{ l.text }}
          <span v-if="l.nearest" class="soft">nearest {{ l.nearest }}</span>
        </p>
        <p v-if="scene?.pulls.length && !narrow" class="soft">pulls to one scale</p>
      </div>
    </template>
  </DrawingFrame>
</template>

<style scoped>
.grid {
  background:
    linear-gradient(var(--grid) 1px, transparent 1px) 0 0 / 28px 28px,
    linear-gradient(90deg, var(--grid) 1px, transparent 1px) 0 0 / 28px 28px;
}
.shaft-pull {
  stroke: var(--ink);
  stroke-width: 3;
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
.movable {
  cursor: move;
}
.movable:focus-visible .rim,
.movable:focus-visible .grip {
  stroke: var(--ember);
  stroke-width: 3;
}
.spoke {
  animation: spin linear infinite;
}
.spoke path {
  stroke: var(--hair);
  stroke-width: 1.6;
}
.spoke.back {
  animation-direction: reverse;
}
@keyframes spin {
  to {
    transform: rotate(1turn);
  }
}
.track {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.4;
  stroke-dasharray: 2 4;
}
.halt {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.4;
  pointer-events: none;
}
.tape {
  stroke: var(--ember);
  stroke-width: 1.6;
  pointer-events: none;
}
.carriage {
  stroke: var(--ink);
  stroke-width: 16;
  stroke-opacity: 0.75;
  pointer-events: none;
}
.keeper rect {
  fill: var(--ink);
}
.keeper.stop rect {
  fill: var(--ember);
}
.keeper .reach {
  stroke: var(--ink-2);
  stroke-width: 1;
  stroke-dasharray: 2 2;
}
.keeper .grip {
  fill: transparent;
}
.ghost {
  fill: none;
  stroke: var(--ember);
  stroke-dasharray: 3 3;
  pointer-events: none;
}
.leader {
  stroke: var(--ink-2);
  stroke-width: 1;
}
.words {
  pointer-events: none;
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
  animation: run linear infinite;
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
.length p {
  margin: 0;
}
.length .soft {
  font-weight: 400;
  margin-left: 8px;
}
</style>
