<script setup lang="ts">
import { computed, inject } from 'vue'

import { inSystem, say } from '../../settings'
import { alignKey } from './useAlign'

/** The machine that moves from above, its feet numbered, with the correction looked at drawn where it is made; or the sizes asked. */
const { asks = false } = defineProps<{ asks?: boolean }>()
const desk = inject(alignKey)!
const a = computed(() => desk.answer.value!)
const step = computed(() => (asks ? undefined : desk.step.value))
const WIDE = 320
const TALL = 286
const MIDDLE = WIDE / 2
const TOP = 52
/** On the page: how far the feet lie below the wheel, and to its sides. */
const at = computed(() => {
  const f = a.value.feet
  const [front, span, width] = f ? [f.a_m, f.b_m, f.width_m] : [0.11, 0.17, 0.19]
  const scale = Math.min(150 / (front + span), 150 / width)
  const y1 = TOP + Math.max(34, front * scale)
  const y2 = y1 + Math.max(58, span * scale)
  const half = Math.max(46, (width * scale) / 2)
  return { y1, y2, left: MIDDLE - half, right: MIDDLE + half }
})
const feet = computed(() => [
  { n: 1, x: at.value.left, y: at.value.y1 },
  { n: 2, x: at.value.right, y: at.value.y1 },
  { n: 3, x: at.value.left, y: at.value.y2 },
  { n: 4, x: at.value.right, y: at.value.y2 },
])
const told = computed(() => step.value?.feet ?? [])
const by = computed(() => (step.value?.by ? inSystem(step.value.by) : ''))
const pivot = computed(() => step.value?.kind === 'swing')
const left = computed(() => step.value?.way === 'left')
const has = computed(() => a.value.bases.find((b) => b.value === a.value.base)?.has_feet ?? true)
/** Where the other machine stands, as a person behind this one sees it. */
const other = computed(() => {
  const slope = a.value.pair.slope_rad
  if (a.value.pair.lie === 'upright') return Math.sin(slope) > 0 ? 'above' : 'below'
  return Math.cos(slope) > 0 ? 'left' : 'right'
})
const named = computed(() => {
  const rise = Math.sin(a.value.pair.slope_rad)
  return a.value.still_name + (a.value.pair.lie === 'steep' ? (rise > 0 ? ', higher' : ', lower') : '')
})
const doing = computed(() => {
  const s = step.value
  if (!s) return asks ? 'Its feet, from above' : 'From above'
  if (s.kind === 'lift') return `${s.way === 'lift' ? 'Put' : 'Take'} ${by.value} ${s.way === 'lift' ? 'under' : 'out from under'} feet ${s.feet.join(' and ')}` // prettier-ignore
  if (s.kind === 'swing') return `Push feet ${s.feet.join(' and ')} ${by.value} to the ${s.way}`
  if (s.kind === 'slide') return `Move the ${a.value.wheel_word} ${by.value} ${s.way}`
  return s.kind === 'tension' ? 'Tension, tighten, read again' : 'This base cannot'
})
</script>

<template>
  <figure>
    <figcaption>
      <b>{{ say(doing) }}</b>
    </figcaption>
    <svg :viewBox="`0 0 ${WIDE} ${TALL}`" role="img" :aria-label="doing">
      <defs>
        <marker
          id="ft-tip"
          viewBox="0 0 10 10"
          refX="8"
          refY="5"
          markerWidth="4.2"
          markerHeight="4.2"
          orient="auto-start-reverse"
        >
          <path d="M0 0 10 5 0 10z" class="tip" />
        </marker>
      </defs>
      <g class="machine">
        <path :d="`M${MIDDLE} ${TOP}V${at.y1 - 6}`" class="shaft" />
        <rect :x="MIDDLE - 54" :y="TOP - 9" width="108" height="18" rx="2" class="wheel" />
        <rect
          :x="at.left + 14"
          :y="at.y1 - 16"
          :width="at.right - at.left - 28"
          :height="at.y2 - at.y1 + 34"
          rx="8"
          class="body"
        />
      </g>
      <text :x="MIDDLE" :y="(at.y1 + at.y2) / 2 + 4" text-anchor="middle" class="name">{{ say(a.moving_name) }}</text>
      <text :x="MIDDLE + 60" :y="TOP + 5" class="soft">wheel</text>
      <template v-if="has">
        <g v-for="f in feet" :key="f.n" :class="{ told: told.includes(f.n), pivot: pivot && f.n < 3 }" class="foot">
          <circle :cx="f.x" :cy="f.y" r="15" />
          <text :x="f.x" :y="f.y" text-anchor="middle" dominant-baseline="central">{{ f.n }}</text>
        </g>
      </template>
      <!-- Where the other machine stands. -->
      <g v-if="other === 'left' || other === 'right'" class="other">
        <path
          :d="other === 'left' ? `M${MIDDLE - 60} ${TOP - 26}H22` : `M${MIDDLE + 60} ${TOP - 26}H${WIDE - 22}`"
          marker-end="url(#ft-tip)"
        />
        <text :x="other === 'left' ? 14 : WIDE - 14" :y="TOP - 34" :text-anchor="other === 'left' ? 'start' : 'end'">
          {{ say(named) }}
        </text>
      </g>
      <text v-else :x="MIDDLE" :y="16" text-anchor="middle" class="other">
        the {{ say(a.still_name) }} is {{ other }} it
      </text>
      <text :x="MIDDLE" :y="TALL - 6" text-anchor="middle" class="soft">
        ▲ you stand here, behind it: left is your left
      </text>
      <!-- The correction. -->
      <template v-if="step && has">
        <g v-if="step.kind === 'lift'" class="do">
          <g v-for="f in feet.filter((g) => told.includes(g.n))" :key="`s${f.n}`">
            <path :d="`M${f.n % 2 ? f.x - 44 : f.x + 22} ${f.y - 6}h22m-22 6h22m-22 6h22`" class="shims" />
            <text :x="f.n % 2 ? f.x - 33 : f.x + 33" :y="f.y - 14" text-anchor="middle" class="amount">
              {{ step.way === 'lift' ? '+' : '−' }}
            </text>
          </g>
        </g>
        <g v-else-if="step.kind === 'swing'" class="do">
          <path
            v-for="f in feet.slice(2)"
            :key="`w${f.n}`"
            :d="left ? `M${f.x - 17} ${f.y}h-38` : `M${f.x + 17} ${f.y}h38`"
            class="push"
            marker-end="url(#ft-tip)"
          />
          <text :x="at.left - 20" :y="at.y1 - 22" class="soft">pivot: 1 and 2 just pinched</text>
        </g>
      </template>
      <path
        v-if="step?.kind === 'slide'"
        :d="step.way === 'out' ? `M${MIDDLE} ${TOP - 12}v-30` : `M${MIDDLE} ${TOP - 42}v30`"
        class="push"
        marker-end="url(#ft-tip)"
      />
      <g v-if="asks && has" class="sizes">
        <path :d="`M${at.right + 40} ${TOP}V${at.y1}`" marker-start="url(#ft-tip)" marker-end="url(#ft-tip)" />
        <text :x="at.right + 48" :y="(TOP + at.y1) / 2 + 4">a</text>
        <path :d="`M${at.right + 40} ${at.y1}V${at.y2}`" marker-start="url(#ft-tip)" marker-end="url(#ft-tip)" />
        <text :x="at.right + 48" :y="(at.y1 + at.y2) / 2 + 4">b</text>
        <path :d="`M${at.left} ${at.y2 + 26}H${at.right}`" marker-start="url(#ft-tip)" marker-end="url(#ft-tip)" />
        <text :x="MIDDLE + 8" :y="at.y2 + 40">c</text>
      </g>
    </svg>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  min-width: 0;
}
figcaption {
  font-size: 15px;
  font-stretch: 80%;
}
svg {
  width: 100%;
  height: 100%;
  min-height: 0;
  max-height: 300px;
}
.machine {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.shaft {
  stroke-width: 6;
}
.wheel {
  stroke-width: 2.2;
}
text {
  font-size: 13px;
  fill: var(--ink);
  font-stretch: 80%;
}
.soft {
  fill: var(--ink-2);
  font-size: 12px;
}
.do .soft {
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4px;
}
.name {
  font-weight: 620;
  font-size: 15px;
}
.foot circle {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.foot text {
  font-weight: 640;
  font-size: 16px;
}
.told circle {
  fill: var(--ember);
  stroke: var(--ember);
}
.told text {
  fill: var(--sheet);
}
.pivot circle {
  stroke-dasharray: 3 3;
}
.other path {
  fill: none;
  stroke: var(--quench);
  stroke-width: 1.6;
}
.other text,
text.other {
  fill: var(--quench);
  font-weight: 600;
}
.tip {
  fill: context-stroke;
}
.push {
  fill: none;
  stroke: var(--ember);
  stroke-width: 5;
}
.shims {
  fill: none;
  stroke: var(--ember);
  stroke-width: 3.4;
}
.amount {
  fill: var(--ember);
  font-size: 22px;
  font-weight: 640;
}
.sizes path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
}
.sizes text {
  font-weight: 640;
  font-style: italic;
  font-size: 15px;
}
</style>
