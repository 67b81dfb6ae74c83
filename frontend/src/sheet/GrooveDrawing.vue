<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { GrooveCheck } from '../api/client'
import { inSystem, say } from '../settings'
import { beltPath, rimPath } from './beltShape'
import StepLabel from './StepLabel.vue'

/** The belt in its groove, in section and to scale: where its back stands against the rim, and both schools' bands beside it. */
const { checked, belt, madeFor, typed } = defineProps<{
  checked: GrooveCheck | null
  belt: string
  madeFor: string
  typed: (key: string) => string
}>()
const frame = ref<HTMLElement>()
const { width, height } = useElementSize(frame)
const narrow = computed(() => width.value < 560 || height.value < 240)
const check = computed(() => checked?.check ?? null)
const scene = computed(() => {
  const c = check.value
  if (!c || width.value < 60 || height.value < 60) return null
  const rides = [c.ride_m, c.measured_ride_m ?? c.ride_m]
  const above = Math.max(0.003, ...rides, ...c.schools.map((s) => s.high_m)) * 1.5
  const below = Math.max(c.groove.height_m, c.belt.height_m - Math.min(...rides)) * 1.22
  const wide = Math.max(c.belt.top_width_m, c.groove.top_width_m) * 2.5
  const pad = narrow.value ? 24 : 56
  const scale = Math.min((width.value - 40) / wide, (height.value - pad * 2) / (above + below))
  const cx = width.value / 2
  const rim = pad + above * scale
  const outline = { width: c.belt.top_width_m * scale, height: c.belt.height_m * scale, angle: c.belt.angle_rad }
  const groove = { width: c.groove.top_width_m * scale, height: c.groove.height_m * scale, angle: c.groove.angle_rad }
  const actual = c.measured_ride_m ?? c.ride_m
  // Deeper than its sizes allow: it is drawn as narrow as the groove is there, its sizes dashed where they would put it.
  const there = groove.width + 2 * actual * scale * Math.tan(groove.angle / 2)
  const worn = actual < c.ride_m - 0.0005 ? { ...outline, width: Math.min(outline.width, there) } : outline
  const half = Math.min((wide / 2) * scale, width.value / 2 - 20)
  const bands = c.schools.map((s, i) => ({
    ...s,
    x: cx + (i ? 1 : -1) * (Math.max(outline.width, groove.width) / 2 + (narrow.value ? 26 : 60)),
    top: rim - s.high_m * scale,
    bottom: rim - s.low_m * scale,
    good: s.verdict.tone === 'good',
    end: i ? ('start' as const) : ('end' as const),
  }))
  return {
    cx,
    rim,
    half,
    bands,
    groove,
    outline,
    actual,
    metal: rimPath(groove, cx, rim, half, Math.min(below * scale, height.value - rim - 6)),
    back: rim - actual * scale,
    belt: beltPath(worn, 'wrapped', cx, rim - actual * scale),
    ghost:
      c.measured_ride_m !== null && Math.abs(c.measured_ride_m - c.ride_m) > 0.0003
        ? beltPath(outline, 'wrapped', cx, rim - c.ride_m * scale)
        : '',
  }
})
const ride = computed(() => {
  const figures = check.value?.figures ?? []
  const figure = figures.find((f) => f.key === 'ride_measured') ?? figures[0]
  if (!figure) return ''
  const text = inSystem(figure).replace('-', '')
  if (Math.abs(figure.value_si) < 0.0004) return 'flush'
  return `${text} ${figure.value_si > 0 ? 'proud' : 'sunk'}`
})
const wrong = computed(() => check.value?.verdicts.find((v) => v.tone === 'stop')?.headline)
const STEPS = [
  ['top_width', 'belt top width'],
  ['groove_width', 'groove top width'],
  ['ride', 'back against the rim'],
] as const
const due = computed(() => STEPS.find(([key]) => !typed(key))?.[0])
const alt = computed(
  () =>
    `Belt ${belt} in a ${madeFor || belt} groove, in section: its back ${ride.value}. ${check.value?.verdicts.map((v) => v.headline).join('. ') ?? ''}`,
)
</script>

<template>
  <div ref="frame" class="frame">
    <svg
      v-if="scene"
      role="img"
      :aria-label="say(alt)"
      :viewBox="`0 0 ${width} ${height}`"
      :width="width"
      :height="height"
    >
      <path :d="scene.metal" class="metal" />
      <path :d="scene.belt" class="belt" />
      <path v-if="scene.ghost" :d="scene.ghost" class="ghost" />
      <path class="rimline" :d="`M ${scene.cx - scene.half} ${scene.rim} H ${scene.cx + scene.half}`" />
      <g v-for="b in scene.bands" :key="b.name" class="band" :class="{ good: b.good }">
        <rect :x="b.x - 5" :y="b.top" width="10" :height="Math.max(2, b.bottom - b.top)" />
        <path class="hand" :d="`M ${b.x - 9} ${scene.back} h 18`" />
        <text
          v-if="!narrow"
          :x="b.x + (b.end === 'start' ? 14 : -14)"
          :y="scene.rim - 22"
          :text-anchor="b.end"
          class="t"
        >
          {{ b.name }}
        </text>
        <text
          v-if="!narrow"
          :x="b.x + (b.end === 'start' ? 14 : -14)"
          :y="scene.rim - 5"
          :text-anchor="b.end"
          class="t strong"
        >
          {{ b.good ? '✓' : '▲' }} {{ b.verdict.headline }}
        </text>
      </g>
      <text :x="scene.cx" :y="Math.min(scene.back, scene.rim) - 10" text-anchor="middle" class="t ride">
        {{ ride }}
      </text>
      <text
        v-if="!narrow"
        :x="scene.cx"
        :y="scene.back + scene.outline.height * 0.55"
        text-anchor="middle"
        class="t in"
      >
        {{ belt }}
      </text>
      <text v-if="wrong && !narrow" :x="width - 24" :y="height - 52" text-anchor="end" class="t wrong">
        ■ {{ wrong }}
      </text>
      <g v-for="([key, words], i) in STEPS" :key="key" :class="typed(key) ? 'done' : key === due ? 'next' : 'later'">
        <g
          :transform="
            narrow ? `translate(${20 + i * (width / 3)} ${height - 10})` : `translate(30 ${height - 74 + i * 26})`
          "
        >
          <StepLabel :number="i + 1" :done="Boolean(typed(key))" :words="narrow ? '' : words" />
        </g>
      </g>
      <text v-if="!narrow && scene.ghost" :x="width - 18" :y="height - 22" text-anchor="end" class="t soft">
        dashed: where the sizes put it
      </text>
    </svg>
    <div v-else class="empty"><slot /></div>
  </div>
</template>

<style src="./section.css" scoped></style>
<style scoped>
.rimline {
  stroke: var(--ink-2);
  stroke-width: 1;
  stroke-dasharray: 4 4;
  fill: none;
}
.band rect {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.4;
}
.band.good rect {
  fill: var(--within-tint);
  stroke: var(--within);
}
.hand {
  stroke: var(--ember);
  stroke-width: 3;
  fill: none;
}
.good .hand {
  stroke: var(--within);
}
.strong {
  font-weight: 640;
  fill: var(--ember);
}
.good .strong {
  fill: var(--within);
}
.ride {
  font-size: 19px;
  font-weight: 640;
  fill: var(--ink);
}
.wrong {
  font-size: 19px;
  font-weight: 640;
  fill: var(--ember);
}
.in {
  fill: var(--paper);
  stroke: none;
  font-weight: 640;
  font-size: 18px;
}
.empty {
  height: 100%;
  display: grid;
  place-items: center;
  padding: 24px;
}
</style>
