<script setup lang="ts">
import { computed, inject } from 'vue'

import { say } from '../../settings'
import { drawn, type Point } from './picture'
import { alignKey, type Aligned } from './useAlign'

/** One view of the two wheels: as they stand with the error drawn large, and dashed as they should. */
const { view } = defineProps<{ view: Aligned['views'][number] }>()
const desk = inject(alignKey)!
const a = computed(() => desk.answer.value!)
const picture = computed(() => drawn(a.value, view, desk.read.value || desk.method.value ? desk.method.value : ''))
const shown = computed(() => a.value.errors.find((e) => e.key === (view.key === 'plane' ? 'angle' : 'twist'))!)
const offset = computed(() => a.value.errors.find((e) => e.key === 'offset')!)
const out = (e: Aligned['errors'][number]) => e.value !== null && Math.abs(e.value!) > e.allowed
const path = (points: Point[]) => `M${points.map((p) => p.join(' ')).join('L')}Z`
const line = (p: Point, q: Point) => `M${p.join(' ')}L${q.join(' ')}`
const moved = computed(() => {
  const [was, to] = picture.value.far
  return Math.hypot(was[0] - to[0], was[1] - to[1]) > 0.08
})
const unit = computed(() => Math.max(picture.value.box[2], picture.value.box[3]) / 100)
const named = computed(() => {
  const p = picture.value
  const middle = (points: Point[]): Point => [(points[0]![0] + points[2]![0]) / 2, (points[0]![1] + points[2]![1]) / 2]
  return { body: middle(p.body), still: p.stillPlane }
})
/** Whether the shafts lie across the page. */
const sideways = computed(() => Math.abs(view.x[0]!) > 0.5)
const driver = computed(() => a.value.moving_name.includes('driver') || a.value.wheels.length > 2)
</script>

<template>
  <figure>
    <figcaption>
      <b>{{ say(view.title) }}</b>
      <span v-if="shown.value !== null" :class="{ ember: out(shown) }"
        >{{ shown.key }} {{ shown.text }}<span class="soft"> of {{ shown.allowed_text }}</span></span
      >
      <span v-else class="soft">{{ shown.key }} not read yet</span>
    </figcaption>
    <svg
      :viewBox="picture.box.join(' ')"
      preserveAspectRatio="xMidYMid meet"
      role="img"
      :aria-label="`${view.title}: ${shown.key} ${shown.text || 'not read'}, offset ${offset.text || 'not read'}`"
    >
      <defs>
        <marker
          id="al-tip"
          viewBox="0 0 8 8"
          refX="6"
          refY="4"
          markerWidth="5"
          markerHeight="5"
          orient="auto-start-reverse"
        >
          <path d="M0 0 8 4 0 8z" class="tip" />
        </marker>
      </defs>
      <g class="ghost">
        <path :d="path(picture.ghostBody)" />
        <path :d="path(picture.ghost)" />
      </g>
      <g class="still" :class="{ quench: driver }">
        <path :d="line(...picture.stillShaft)" class="shaft" />
        <path :d="path(picture.still)" class="wheel" />
        <path :d="line(...picture.stillPlane)" class="plane" />
      </g>
      <g class="moving" :class="{ ember: driver }">
        <path :d="line(...picture.shaft)" class="shaft" />
        <path :d="path(picture.body)" class="body" />
        <path :d="path(picture.moving)" class="wheel" />
        <path :d="line(...picture.movingPlane)" class="plane" />
      </g>
      <path
        v-for="(l, i) in picture.lines"
        :key="i"
        :d="line(l.a, l.b)"
        :class="l.kind"
        :marker-start="l.kind === 'tape' ? 'url(#al-tip)' : undefined"
        :marker-end="l.kind === 'tape' ? 'url(#al-tip)' : undefined"
      />
      <g
        v-for="(l, i) in picture.levels"
        :key="`l${i}`"
        :transform="`translate(${l.at}) rotate(${l.turn})`"
        class="level"
      >
        <rect x="-0.24" y="-0.09" width="0.48" height="0.18" rx="0.03" />
        <circle r="0.05" />
      </g>
      <path v-if="moved" :d="line(...picture.far)" class="put" marker-end="url(#al-tip)" />
      <path :d="line(...picture.outward)" class="outward" marker-end="url(#al-tip)" />
      <text
        :x="picture.outward[1][0]"
        :y="picture.outward[1][1]"
        :dx="unit * (view.x[0]! < -0.5 ? -2 : 2)"
        :dy="unit * 1.4"
        :font-size="unit * 4.2"
        :text-anchor="view.x[0]! < -0.5 ? 'end' : 'start'"
        class="soft"
      >
        out
      </text>
      <text
        :x="named.body[0]"
        :y="named.body[1]"
        :font-size="unit * 4.6"
        class="name"
        text-anchor="middle"
        dominant-baseline="middle"
      >
        {{ say(a.moving_name) }}
      </text>
      <text
        v-if="view.key === 'plane'"
        :x="picture.stillShaft[0][0]"
        :y="picture.stillShaft[0][1]"
        :dx="sideways ? -unit * 2 * Math.sign(view.x[0]!) : 0"
        :dy="sideways ? unit * 1.6 : unit * 5"
        :font-size="unit * 4.6"
        class="name"
        :text-anchor="sideways ? (view.x[0]! > 0 ? 'end' : 'start') : 'middle'"
      >
        {{ say(a.still_name) }}
      </text>
      <g v-for="d in picture.dots" :key="d.text" class="dot">
        <circle :cx="d.at[0]" :cy="d.at[1]" :r="unit * 3" />
        <text :x="d.at[0]" :y="d.at[1]" :font-size="unit * 4" text-anchor="middle" dominant-baseline="central">
          {{ d.text }}
        </text>
      </g>
    </svg>
    <p v-if="shown.value !== null" class="soft note">Drawn {{ picture.k }} times as large; dashed: true.</p>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-height: 0;
  min-width: 0;
}
figcaption {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  flex-wrap: wrap;
  font-size: 14px;
  font-stretch: 80%;
}
figcaption .ember {
  font-weight: 640;
}
svg {
  width: 100%;
  height: 100%;
  min-height: 0;
}
.note {
  font-size: 12px;
}
path {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.6px;
  vector-effect: non-scaling-stroke;
  stroke-linejoin: round;
}
.still,
.moving {
  color: var(--ink);
}
.ember.moving {
  color: var(--ember);
}
.quench.still {
  color: var(--quench);
}
.wheel {
  fill: var(--sheet);
  stroke-width: 2.4px;
}
.body {
  fill: var(--sheet);
}
.shaft {
  stroke-width: 5px;
}
.plane {
  stroke-dasharray: 10 3 2 3;
  stroke-width: 1px;
}
.ghost {
  color: var(--ink-2);
}
.ghost path {
  stroke-dasharray: 4 4;
  stroke-width: 1px;
}
.edge {
  stroke: var(--ink);
  stroke-width: 3px;
}
.beam {
  stroke: var(--ink);
  stroke-dasharray: 2 3;
}
.tape {
  stroke: var(--ink);
  stroke-width: 1.2px;
}
.put,
.outward {
  stroke: var(--ink);
  stroke-width: 1.4px;
}
.put {
  stroke-width: 2.4px;
}
.tip {
  fill: var(--ink);
  stroke: none;
}
.level rect {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.4px;
  vector-effect: non-scaling-stroke;
}
.level circle {
  fill: var(--ink);
}
text {
  fill: var(--ink);
  font-stretch: 80%;
}
text.soft {
  fill: var(--ink-2);
}
.name {
  font-weight: 620;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
  vector-effect: non-scaling-stroke;
}
.dot circle {
  fill: var(--ink);
}
.dot text {
  fill: var(--sheet);
  font-weight: 640;
}
@media (max-width: 760px) {
  .note {
    display: none;
  }
  figcaption {
    font-size: 12.5px;
  }
}
</style>
