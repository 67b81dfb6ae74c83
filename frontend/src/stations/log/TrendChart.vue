<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { LogEntry, Trend } from '../../api/client'
import { inSystem, NEWTON_PER_LBF, settings } from '../../settings'

/** Average strand tension over time against the window that held at each reading; fittings as upright lines. */
const {
  entries,
  expected = [],
  title = '',
} = defineProps<{ entries: LogEntry[]; expected?: Trend['expected']; title?: string }>()
const emit = defineEmits<{ show: [id: string] }>()
const frame = ref<HTMLElement>()
const { width } = useElementSize(frame)
const HEIGHT = 190
const PAD = { left: 34, right: 10, top: 12, bottom: 22 }

const chart = computed(() => {
  const read = entries
    .filter((e) => e.kind === 'belt tension' && !e.struck && e.figures?.strand_average && e.figures.tension_low)
    .reverse()
  if (read.length < 2 || width.value < 80) return null
  const unit = settings.value.system === 'us' ? NEWTON_PER_LBF : 1
  const times = read.map((e) => new Date(e.at).getTime())
  const from = times[0]!
  const to = Math.max(times[times.length - 1]!, from + 86_400_000)
  const tops = read.map((e) =>
    Math.max(
      e.figures!.tension_high!.value_si,
      e.figures!.strand_average!.value_si + 2 * e.figures!.strand_average!.std_si,
    ),
  )
  const top = Math.max(...tops) * 1.06
  const x = (t: number) => PAD.left + ((t - from) / (to - from)) * (width.value - PAD.left - PAD.right)
  const y = (n: number) => HEIGHT - PAD.bottom - (n / top) * (HEIGHT - PAD.top - PAD.bottom)
  const points = read.map((e, i) => {
    const mean = e.figures!.strand_average!
    return {
      id: e.id,
      x: x(times[i]!),
      y: y(mean.value_si),
      up: y(mean.value_si + 2 * mean.std_si),
      down: y(Math.max(0, mean.value_si - 2 * mean.std_si)),
      tone: e.tone,
      text: `${new Date(e.at).toLocaleDateString()}: ${inSystem(mean)}, ${e.title}`,
    }
  })
  const band = (key: string) => read.map((e, i) => ({ x: x(times[i]!), y: y(e.figures![key]!.value_si) }))
  const lows = band('tension_low')
  const highs = band('tension_high')
  const path = (p: { x: number; y: number }[]) => p.map((q) => `${q.x.toFixed(1)} ${q.y.toFixed(1)}`).join(' L ')
  const rough = top / unit / 4
  const step = [1, 2, 5, 10, 20, 50, 100, 200, 500].find((s) => s >= rough) ?? 1000
  const ticks = []
  for (let t = 0; t * unit <= top; t += step) ticks.push({ y: y(t * unit), text: String(t) })
  const fittings = entries
    .filter((e) => e.kind === 'survey' && e.title.includes('as left'))
    .map((e) => x(new Date(e.at).getTime()))
    .filter((v) => v >= PAD.left)
  const months = []
  const month = new Date(from)
  month.setDate(1)
  month.setHours(0, 0, 0, 0)
  for (month.setMonth(month.getMonth() + 1); month.getTime() < to; month.setMonth(month.getMonth() + 1))
    months.push({ x: x(month.getTime()), text: month.toLocaleDateString(undefined, { month: 'short' }) })
  const every = Math.ceil(months.length / 8)
  return {
    points,
    line: path(points),
    settles: expected.map((e) => {
      const at = (key: 'low' | 'high') =>
        e.points.map((p) => ({ x: x(Math.min(to, new Date(p.at).getTime())), y: y(p[key]) }))
      return `M ${path(at('low'))} L ${path(at('high').reverse())} Z`
    }),
    band: `M ${path(lows)} L ${path([...highs].reverse())} Z`,
    ticks,
    fittings,
    months: months.filter((_, i) => i % every === 0),
  }
})
</script>

<template>
  <figure ref="frame">
    <template v-if="chart">
      <figcaption>
        <b>{{ title || 'Average strand tension' }}</b>
        <span class="soft small"
          >{{ inSystem({ us: 'lbf', si: 'N' }) }}; band: right for run-in belts, up to new<template
            v-if="chart.settles.length"
            >; dotted: how a set tension settles</template
          ></span
        >
      </figcaption>
      <svg :width="width" :height="HEIGHT" role="group" aria-label="Average strand tension over time">
        <path :d="chart.band" class="band" />
        <path v-for="d in chart.settles" :key="d" :d="d" class="settles" />
        <g v-for="t in chart.ticks" :key="t.text">
          <line :x1="PAD.left - 4" :x2="width - PAD.right" :y1="t.y" :y2="t.y" class="grid" />
          <text :x="PAD.left - 7" :y="t.y + 4" text-anchor="end">{{ t.text }}</text>
        </g>
        <text v-for="m in chart.months" :key="m.x" :x="m.x" :y="HEIGHT - 6" text-anchor="middle">{{ m.text }}</text>
        <g v-for="f in chart.fittings" :key="f">
          <line :x1="f" :x2="f" :y1="PAD.top" :y2="HEIGHT - PAD.bottom" class="fitting" />
          <text :x="f + 4" :y="PAD.top + 8">new set</text>
        </g>
        <path :d="`M ${chart.line}`" class="line" />
        <g
          v-for="p in chart.points"
          :key="p.id"
          class="point"
          role="button"
          tabindex="0"
          :aria-label="p.text"
          @click="emit('show', p.id)"
          @keydown.enter="emit('show', p.id)"
        >
          <title>{{ p.text }}</title>
          <circle :cx="p.x" :cy="p.y" r="14" class="touch" />
          <line :x1="p.x" :x2="p.x" :y1="p.up" :y2="p.down" class="doubt" />
          <rect
            v-if="p.tone === 'watch'"
            :x="p.x - 4"
            :y="p.y - 4"
            width="8"
            height="8"
            class="watch"
            :transform="`rotate(45 ${p.x} ${p.y})`"
          />
          <circle v-else :cx="p.x" :cy="p.y" r="4" class="dot" />
        </g>
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
  overflow: visible;
}
text {
  font-size: 11.5px;
  fill: var(--ink-2);
  font-family: var(--font);
  font-stretch: 80%;
}
.band {
  fill: var(--within-tint);
}
.settles {
  fill: none;
  stroke: var(--ink-2);
  stroke-dasharray: 2 3;
}
.grid {
  stroke: var(--hair-2);
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}
.fitting {
  stroke: var(--ink);
  stroke-dasharray: 3 3;
}
.doubt {
  stroke: var(--ink-2);
  stroke-width: 3;
  opacity: 0.45;
  stroke-linecap: round;
}
.dot {
  fill: var(--ink);
}
.watch {
  fill: var(--ember);
}
.touch {
  fill: transparent;
}
.point {
  cursor: pointer;
}
figcaption span {
  margin-left: 6px;
}
</style>
