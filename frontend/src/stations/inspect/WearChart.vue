<script setup lang="ts">
import { serverNow } from '../../api/clock'
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

/** One place's wear over time as a share of its limit, and the days between which the server says the limit comes. */
const { readings, runsOut, now } = defineProps<{
  readings: { id: string; at: string; share: number; text: string }[]
  runsOut: (string | null)[] | null
  now: number | null
}>()
const frame = ref<HTMLElement>()
const { width } = useElementSize(frame)
const height = computed(() => (width.value < 420 ? 150 : 220))
const PAD = { left: 44, right: 16, top: 22, bottom: 26 }
const DAY = 86_400_000
const date = (t: number) =>
  new Date(t).toLocaleDateString(undefined, { day: 'numeric', month: 'short', year: '2-digit' })
const time = (day: string | null | undefined) => (day ? new Date(day).getTime() : null)

const chart = computed(() => {
  const read = readings.map((r) => ({ ...r, t: new Date(r.at).getTime() })).sort((a, b) => a.t - b.t)
  if (now !== null) read.push({ id: 'now', at: '', share: now, text: '', t: serverNow().getTime() })
  if (read.length < 2 || width.value < 120) return null
  const [low, middle, high] = (runsOut ?? []).map(time)
  const from = read[0]!.t
  const last = read.at(-1)!
  const end = low ? (high ?? (middle ?? low) * 1.5 - 0.5 * from) : last.t
  const to = Math.max(end, last.t + DAY)
  const top = Math.max(1.15, ...read.map((r) => r.share * 1.05))
  const x = (t: number) => PAD.left + Math.min(1, (t - from) / (to - from)) * (width.value - PAD.left - PAD.right)
  const y = (s: number) => height.value - PAD.bottom - (s / top) * (height.value - PAD.top - PAD.bottom)
  return {
    points: read.map((r) => ({
      id: r.id,
      x: x(r.t),
      y: y(r.share),
      text: `${date(r.t)}: ${r.text || `${Math.round(100 * r.share)} %`}`,
    })),
    limit: y(1),
    half: y(0.5),
    foot: y(0),
    band: low ? { from: x(low), middle: x(middle ?? low), to: x(high ?? to), open: !high } : null,
    last: { x: x(last.t), y: y(last.share) },
    dates: [from, ...(low ? [to] : [last.t])].map((t) => ({ x: x(t), text: date(t) })),
  }
})
</script>

<template>
  <figure ref="frame">
    <template v-if="chart">
      <figcaption><b>Toward its limit</b></figcaption>
      <svg :width="width" :height="height" role="img" aria-label="Wear over time against its limit">
        <line :x1="PAD.left" :x2="width - PAD.right" :y1="chart.limit" :y2="chart.limit" class="limit" />
        <line :x1="PAD.left" :x2="width - PAD.right" :y1="chart.half" :y2="chart.half" class="grid" />
        <line :x1="PAD.left" :x2="width - PAD.right" :y1="chart.foot" :y2="chart.foot" class="grid" />
        <text :x="PAD.left - 7" :y="chart.limit + 4" text-anchor="end">limit</text>
        <text :x="PAD.left - 7" :y="chart.half + 4" text-anchor="end">half</text>
        <text :x="PAD.left - 7" :y="chart.foot + 4" text-anchor="end">new</text>
        <template v-if="chart.band">
          <path
            :d="`M${chart.last.x} ${chart.last.y}L${chart.band.from} ${chart.limit}H${chart.band.to}Z`"
            class="fan"
          />
          <path :d="`M${chart.last.x} ${chart.last.y}L${chart.band.middle} ${chart.limit}`" class="ahead" />
          <line :x1="chart.band.from" :x2="chart.band.to" :y1="chart.limit" :y2="chart.limit" class="bar" />
          <path v-if="chart.band.open" :d="`M${chart.band.to - 6} ${chart.limit - 6}l8 6-8 6`" class="bar" />
        </template>
        <path :d="`M${chart.points.map((p) => `${p.x} ${p.y}`).join('L')}`" class="line" />
        <circle v-for="p in chart.points" :key="p.id" :cx="p.x" :cy="p.y" r="4.5" :class="{ now: p.id === 'now' }">
          <title>{{ p.text }}</title>
        </circle>
        <text v-for="(d, i) in chart.dates" :key="i" :x="d.x" :y="height - 6" :text-anchor="i ? 'end' : 'start'">
          {{ d.text }}
        </text>
      </svg>
    </template>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  min-width: 0;
}
svg {
  display: block;
}
text {
  font-size: 12.5px;
  fill: var(--ink-2);
  font-family: var(--font);
  font-stretch: 80%;
}
.grid {
  stroke: var(--hair);
}
.limit {
  stroke: var(--ember);
  stroke-width: 1.6;
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
}
.fan {
  fill: var(--within-tint);
}
.ahead {
  fill: none;
  stroke: var(--ink-2);
  stroke-dasharray: 3 4;
}
.bar {
  fill: none;
  stroke: var(--ember);
  stroke-width: 6;
}
circle {
  fill: var(--ink);
}
.now {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
