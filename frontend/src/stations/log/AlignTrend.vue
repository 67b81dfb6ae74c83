<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { LogEntry } from '../../api/client'

/** How true over time: each error as a share of what was allowed, the band that of tolerance. */
const { entries, title = '' } = defineProps<{ entries: LogEntry[]; title?: string }>()
const emit = defineEmits<{ show: [id: string] }>()
const frame = ref<HTMLElement>()
const { width } = useElementSize(frame)
const HEIGHT = 150
const PAD = { left: 50, right: 64, top: 10, bottom: 22 }
const ERRORS = [
  { key: 'angle', allowed: 'angle', dash: '', mark: 'M-4 0a4 4 0 1 0 8 0a4 4 0 1 0-8 0' },
  { key: 'twist', allowed: 'angle', dash: '5 3', mark: 'M-4-4H4V4H-4z' },
  { key: 'offset', allowed: 'offset', dash: '2 3', mark: 'M0-5 5 0 0 5-5 0z' },
] as const
const chart = computed(() => {
  const read = entries.filter((e) => !e.struck && e.allowed?.angle).reverse()
  if (read.length < 2 || width.value < 80) return null
  const times = read.map((e) => new Date(e.at).getTime())
  const from = times[0]!
  const to = Math.max(times.at(-1)!, from + 86_400_000)
  const x = (t: number) => PAD.left + ((t - from) / (to - from)) * (width.value - PAD.left - PAD.right)
  const share = (e: LogEntry, key: string, allowed: string) => {
    const figure = e.figures?.[key]
    return figure ? Math.abs(figure.value_si) / e.allowed![allowed]! : null
  }
  const all = read.flatMap((e) => ERRORS.map((r) => share(e, r.key, r.allowed) ?? 0))
  const top = Math.max(1.4, ...all) * 1.06
  const y = (v: number) => HEIGHT - PAD.bottom - (v / top) * (HEIGHT - PAD.top - PAD.bottom)
  const lines = ERRORS.map((r) => {
    const points = read.flatMap((e, i) => {
      const value = share(e, r.key, r.allowed)
      return value === null
        ? []
        : [{ id: e.id, x: x(times[i]!), y: y(value), text: `${new Date(e.at).toLocaleDateString()}: ${e.title}` }]
    })
    return { ...r, points, path: points.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join(' L ') }
  })
  // Names beside the last points, one under another.
  const names = lines
    .filter((l) => l.points.length)
    .map((l) => ({ key: l.key, mark: l.mark, at: l.points.at(-1)!.y }))
    .sort((a, b) => a.at - b.at)
  names.forEach((n, i) => (n.at = Math.max(n.at, i ? names[i - 1]!.at + 14 : PAD.top + 4)))
  const over = names.length ? Math.max(0, names.at(-1)!.at - (HEIGHT - PAD.bottom)) : 0
  return {
    lines,
    names: names.map((n) => ({ ...n, at: n.at - over })),
    y,
    dates: [times[0]!, times.at(-1)!].map((t) => new Date(t).toLocaleDateString()),
  }
})
</script>

<template>
  <figure ref="frame">
    <figcaption v-if="chart" class="small">{{ title || 'How true: shares of what is allowed' }}</figcaption>
    <svg
      v-if="chart"
      :width="width"
      :height="HEIGHT"
      role="group"
      aria-label="Alignment over time, as shares of what is allowed"
    >
      <rect
        :x="PAD.left"
        :width="width - PAD.left - PAD.right"
        :y="chart.y(1)"
        :height="chart.y(0) - chart.y(1)"
        class="band"
      />
      <text :x="PAD.left - 6" :y="chart.y(1) + 4" text-anchor="end">allowed</text>
      <text :x="PAD.left - 6" :y="chart.y(0) + 4" text-anchor="end">true</text>
      <g v-for="l in chart.lines" :key="l.key">
        <path :d="`M ${l.path}`" class="line" :stroke-dasharray="l.dash" />
        <g
          v-for="p in l.points"
          :key="p.id"
          :transform="`translate(${p.x} ${p.y})`"
          class="point"
          role="button"
          tabindex="0"
          :aria-label="`${l.key}, ${p.text}`"
          @click="emit('show', p.id)"
          @keydown.enter="emit('show', p.id)"
        >
          <circle r="12" class="reach" />
          <path :d="l.mark" />
          <title>{{ p.text }}</title>
        </g>
      </g>
      <g v-for="n in chart.names" :key="n.key" :transform="`translate(${width - PAD.right + 12} ${n.at})`">
        <path :d="n.mark" class="key" />
        <text x="9" y="4">{{ n.key }}</text>
      </g>
      <text :x="PAD.left" :y="HEIGHT - 4">{{ chart.dates[0] }}</text>
      <text :x="width - PAD.right" :y="HEIGHT - 4" text-anchor="end">{{ chart.dates[1] }}</text>
    </svg>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  min-width: 0;
}
.band {
  fill: var(--within-tint);
}
.line {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.4;
}
.point {
  cursor: pointer;
}
.point path,
.key {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.8;
}
.reach {
  fill: transparent;
}
text {
  font-size: 11.5px;
  font-stretch: 76%;
  fill: var(--ink-2);
}
</style>
