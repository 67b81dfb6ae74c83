<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import { settings } from '../../settings'
import { FAMILY_SHAPES, FAMILY_WORDS } from '../../drives/marks'
import type { SizeAnswer } from './useSizeAsk'

/** Every drive that would do, by two of its measures; those that nothing beats on both are filled and joined. */
const { answer, chosen, beside, axes } = defineProps<{
  answer: SizeAnswer
  chosen: string
  beside: string[]
  axes: Record<string, string>
}>()
const emit = defineEmits<{ choose: [key: string]; axis: [which: 'x' | 'y', key: string] }>()
const frame = ref<HTMLElement>()
const { width, height } = useElementSize(frame)
const PAD = { left: 52, right: 14, top: 14, bottom: 34 }
const LOG_FROM = 12

type Axis = SizeAnswer['x']
const unit = (axis: Axis) => (settings.value.system === 'us' ? axis.us_unit : axis.si_unit)
const factor = (axis: Axis) => (settings.value.system === 'us' ? axis.us_factor : axis.si_factor)

/** One axis in shown units: a scale, logarithmic where the drives lie far apart, and its ticks. */
function scale(values: number[], from: number, to: number) {
  const low = Math.min(...values)
  const high = Math.max(...values)
  const log = low > 0 && high / low > LOG_FROM
  const put = (v: number) => (log ? Math.log10(v) : v)
  const a = put(low)
  const b = put(high)
  const room = b - a || Math.abs(a) * 0.1 || 1
  const lo = a - room * 0.06
  const hi = b + room * 0.06
  const at = (v: number) => from + ((put(v) - lo) / (hi - lo)) * (to - from)
  const ticks: number[] = []
  if (log) {
    for (let e = Math.floor(lo); e <= hi; e++) for (const m of [1, 2, 5]) ticks.push(m * 10 ** e)
  } else {
    const rough = (hi - lo) / 5
    const power = 10 ** Math.floor(Math.log10(rough))
    const step = [1, 2, 5, 10].map((m) => m * power).find((s) => s >= rough) ?? rough
    for (let t = Math.ceil(lo / step) * step; t <= hi; t += step) ticks.push(t)
  }
  return { at, ticks: ticks.filter((t) => put(t) >= lo && put(t) <= hi) }
}
const figure = (v: number) => v.toLocaleString('en', { maximumFractionDigits: Math.abs(v) < 10 ? 1 : 0 })

const plot = computed(() => {
  if (!answer.dots.length || width.value < 120 || height.value < 90) return null
  const fx = factor(answer.x)
  const fy = factor(answer.y)
  const x = scale(
    answer.dots.map((d) => d.x * fx),
    PAD.left,
    width.value - PAD.right,
  )
  const y = scale(
    answer.dots.map((d) => d.y * fy),
    height.value - PAD.bottom,
    PAD.top,
  )
  const dots = answer.dots.map((d) => ({ ...d, px: x.at(d.x * fx), py: y.at(d.y * fy) }))
  dots.sort((p, q) => Number(p.key === chosen) - Number(q.key === chosen) || Number(p.best) - Number(q.best))
  const front = dots.filter((d) => d.best).sort((p, q) => p.px - q.px)
  return { x, y, dots, front }
})
const families = computed(() => [...new Set(answer.dots.map((d) => d.family))])
const near = ref('')
function nearest(event: PointerEvent): string {
  const box = frame.value?.getBoundingClientRect()
  if (!plot.value || !box) return ''
  const [mx, my] = [event.clientX - box.left, event.clientY - box.top]
  let best = { key: '', far: 28 }
  for (const d of plot.value.dots) {
    const far = Math.hypot(d.px - mx, d.py - my)
    if (far < best.far) best = { key: d.key, far }
  }
  return best.key
}
const pointed = computed(() => plot.value?.dots.find((d) => d.key === near.value))
const ringed = computed(() => plot.value?.dots.filter((d) => d.key === chosen || d.key === near.value) ?? [])
const described = computed(
  () =>
    `${answer.dots.length} of ${answer.feasible} drives that would do, ${answer.x.says} across and ${answer.y.says} up; ${plot.value?.front.length ?? 0} that nothing beats on both. The list beneath tells each.`,
)
</script>

<template>
  <div class="plot">
    <div class="axes small">
      <label>
        <span class="soft">up</span>
        <select
          :value="answer.y.key"
          aria-label="Upward axis"
          @change="emit('axis', 'y', ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="(says, key) in axes" :key="key" :value="key">{{ says }}</option>
        </select>
      </label>
      <label>
        <span class="soft">across</span>
        <select
          :value="answer.x.key"
          aria-label="Axis across"
          @change="emit('axis', 'x', ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="(says, key) in axes" :key="key" :value="key">{{ says }}</option>
        </select>
      </label>
      <span class="key">
        <span v-for="f in families" :key="f">
          <svg viewBox="-8 -8 16 16" aria-hidden="true"><path :d="FAMILY_SHAPES[f]" /></svg>{{ FAMILY_WORDS[f] }}
        </span>
      </span>
    </div>
    <div ref="frame" class="frame">
      <svg
        v-if="plot"
        :viewBox="`0 0 ${width} ${height}`"
        :width="width"
        :height="height"
        role="img"
        :aria-label="described"
        @pointermove="near = nearest($event)"
        @pointerleave="near = ''"
        @click="nearest($event as PointerEvent) && emit('choose', nearest($event as PointerEvent))"
      >
        <g class="grid">
          <template v-for="t in plot.x.ticks" :key="`x${t}`">
            <line :x1="plot.x.at(t)" :x2="plot.x.at(t)" :y1="PAD.top" :y2="height - PAD.bottom" />
            <text :x="plot.x.at(t)" :y="height - PAD.bottom + 15" text-anchor="middle">{{ figure(t) }}</text>
          </template>
          <template v-for="t in plot.y.ticks" :key="`y${t}`">
            <line :x1="PAD.left" :x2="width - PAD.right" :y1="plot.y.at(t)" :y2="plot.y.at(t)" />
            <text :x="PAD.left - 6" :y="plot.y.at(t) + 4" text-anchor="end">{{ figure(t) }}</text>
          </template>
        </g>
        <text class="name" :x="width - PAD.right" :y="height - 4" text-anchor="end">
          {{ answer.x.says }}, {{ unit(answer.x) }} {{ answer.x.more ? '→ better' : '← better' }}
        </text>
        <text class="name" :x="PAD.left + 5" :y="PAD.top + 3">
          {{ answer.y.says }}, {{ unit(answer.y) }} {{ answer.y.more ? '↑ better' : '↓ better' }}
        </text>
        <polyline class="front" :points="plot.front.map((d) => `${d.px},${d.py}`).join(' ')" />
        <path
          v-for="d in plot.dots"
          :key="d.key"
          :d="FAMILY_SHAPES[d.family]"
          :transform="`translate(${d.px} ${d.py}) scale(0.85)`"
          class="dot"
          :class="{ best: d.best, chosen: d.key === chosen, beside: beside.includes(d.key) }"
        />
        <circle v-for="d in ringed" :key="`r${d.key}`" :cx="d.px" :cy="d.py" r="11" class="ring" />
      </svg>
      <p
        v-if="pointed"
        class="pointed small"
        :style="{ left: `${Math.min(pointed.px, width - 230)}px`, top: `${pointed.py + 12}px` }"
      >
        {{ pointed.says }}
      </p>
    </div>
  </div>
</template>

<style scoped>
.plot {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  min-width: 0;
}
.axes {
  display: flex;
  gap: 6px 16px;
  align-items: center;
  padding: 6px 14px 0;
  flex-wrap: wrap;
}
.axes label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.axes select {
  min-height: 44px;
  border: 0;
  border-bottom: 1px solid var(--hair);
  background: none;
  color: var(--ink);
  font-size: 14px;
}
.key {
  margin-left: auto;
  display: flex;
  gap: 12px;
}
.key > span {
  display: flex;
  gap: 4px;
  align-items: center;
}
.key svg {
  width: 16px;
  height: 16px;
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.4;
}
.frame {
  position: relative;
  min-height: 0;
  overflow: hidden;
}
svg {
  display: block;
}
.grid line {
  stroke: var(--hair-2);
}
.grid text,
.name {
  font-size: 12px;
  fill: var(--ink-2);
}
.name {
  font-size: 12.5px;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
.dot {
  fill: var(--paper);
  stroke: var(--ink-2);
  stroke-width: 1;
  opacity: 0.75;
}
.dot.best {
  fill: var(--ink);
  stroke: var(--ink);
  opacity: 1;
}
.dot.beside {
  fill: var(--quench-tint);
  stroke: var(--quench);
  opacity: 1;
}
.dot.chosen {
  fill: var(--ember);
  stroke: var(--ember);
  opacity: 1;
}
.front {
  fill: none;
  stroke: var(--ink-2);
  stroke-dasharray: 3 3;
}
.ring {
  fill: none;
  stroke: var(--ember);
  stroke-width: 1.6;
  pointer-events: none;
}
.pointed {
  position: absolute;
  max-width: 230px;
  background: var(--sheet);
  border: 1px solid var(--hair);
  padding: 3px 8px;
  pointer-events: none;
}
@media (max-width: 760px) {
  .axes {
    gap: 0 10px;
    padding-top: 0;
  }
  .key {
    display: none;
  }
}
</style>
