<script setup lang="ts">
import { computed } from 'vue'

import type { components } from '../../api/schema'
import { inSystem, settings } from '../../settings'

/** The shop's tables as curves of power by speed, with the standard's dashed beside them: what overriding it means. */
type Compared = components['schemas']['Compared']
const { tables, power } = defineProps<{ tables: Compared[]; power: components['schemas']['Axis'] }>()
const W = 400
const H = 230
const PAD = { left: 46, right: 74, top: 12, bottom: 30 }
const unit = computed(() =>
  settings.value.system === 'us'
    ? { name: power.us_unit, factor: power.us_factor }
    : { name: power.si_unit, factor: power.si_factor },
)

function nice(top: number): number[] {
  const rough = top / 4
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 5, 10].map((m) => m * power).find((s) => s >= rough) ?? rough
  return Array.from({ length: Math.floor(top / step) + 1 }, (_, i) => i * step)
}
const charts = computed(() =>
  tables.map((t) => {
    const all = t.curves.flatMap((c) => [...c.own_w, ...c.standard_w.filter((v): v is number => v !== null)])
    const top = Math.max(...all, 1) * unit.value.factor
    const last = Math.max(...t.rpm)
    const x = (rpm: number) => PAD.left + (rpm / last) * (W - PAD.left - PAD.right)
    const y = (watts: number) => H - PAD.bottom - ((watts * unit.value.factor) / top) * (H - PAD.top - PAD.bottom)
    const path = (values: (number | null)[]) =>
      values
        .map((v, i) => (v === null ? '' : `${x(t.rpm[i]!).toFixed(1)},${y(v).toFixed(1)}`))
        .filter(Boolean)
        .join(' ')
    const ends = t.curves
      .map((c) => ({ said: inSystem({ us: c.size_us, si: c.size_si }), at: y(c.own_w.at(-1)!) }))
      .sort((a, b) => a.at - b.at)
    for (let i = 1; i < ends.length; i++) ends[i]!.at = Math.max(ends[i]!.at, ends[i - 1]!.at + 13)
    return {
      ...t,
      curves: t.curves.map((c) => ({
        own: path(c.own_w),
        standard: path(c.standard_w),
        dots: c.own_w.map((v, i) => ({ x: x(t.rpm[i]!), y: y(v) })),
      })),
      ends,
      ys: nice(top).map((v) => ({ v, at: y(v / unit.value.factor) })),
      xs: nice(last).map((v) => ({ v, at: x(v) })),
    }
  }),
)
</script>

<template>
  <div class="charts">
    <p v-if="!charts.length" class="teach">
      Bring a rating table of your own, from a belt’s or chain’s supplier, and it overrides the standard’s figures:
      here, on every sheet, and in Size. It then stands here beside the standard it replaces.
    </p>
    <section v-for="t in charts" :key="t.name" :aria-label="t.name">
      <h2>{{ t.name }}</h2>
      <p class="small">{{ t.says }}</p>
      <p class="small soft">{{ t.reach }}; {{ t.of }}</p>
      <svg :viewBox="`0 0 ${W} ${H}`" role="img" :aria-label="`${t.name}: ${t.says}`">
        <g v-for="tick in t.ys" :key="`y${tick.v}`">
          <line :x1="PAD.left" :x2="W - PAD.right" :y1="tick.at" :y2="tick.at" class="grid" />
          <text :x="PAD.left - 6" :y="tick.at + 4" class="tick end">{{ +tick.v.toPrecision(3) }}</text>
        </g>
        <g v-for="tick in t.xs" :key="`x${tick.v}`">
          <text :x="tick.at" :y="H - PAD.bottom + 16" class="tick mid">{{ tick.v }}</text>
        </g>
        <text :x="PAD.left - 6" :y="H - 4" class="tick end">{{ unit.name }}</text>
        <text :x="W - PAD.right" :y="H - 4" class="tick end">rpm</text>
        <g v-for="(c, i) in t.curves" :key="i">
          <polyline v-if="c.standard" :points="c.standard" class="standard" />
          <polyline :points="c.own" class="own" />
          <circle v-for="(d, k) in c.dots" :key="k" :cx="d.x" :cy="d.y" r="2.4" class="dot" />
        </g>
        <text v-for="e in t.ends" :key="e.said" :x="W - PAD.right + 6" :y="e.at + 4" class="size">{{ e.said }}</text>
      </svg>
    </section>
    <p v-if="charts.length" class="small soft key">
      <span class="line" aria-hidden="true" /> yours <span class="line dashed" aria-hidden="true" /> the standard that
      it overrides, at the same size and speed
    </p>
  </div>
</template>

<style scoped>
.charts {
  padding: 12px 20px 20px;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(340px, 1fr));
  gap: 22px 28px;
  align-content: start;
}
.teach {
  padding: 12px 0;
  max-width: 46em;
  grid-column: 1 / -1;
}
h2 {
  font-size: 20px;
}
svg {
  width: 100%;
  height: auto;
}
.grid {
  stroke: var(--hair-2);
}
.tick,
.size {
  font-size: 11.5px;
  fill: var(--ink-2);
}
.size {
  fill: var(--ink);
}
.end {
  text-anchor: end;
}
.mid {
  text-anchor: middle;
}
.own {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
}
.standard {
  fill: none;
  stroke: var(--quench);
  stroke-width: 1.4;
  stroke-dasharray: 5 4;
}
.dot {
  fill: var(--ink);
}
.key {
  grid-column: 1 / -1;
}
.line {
  display: inline-block;
  width: 26px;
  border-top: 2px solid var(--ink);
  vertical-align: middle;
  margin: 0 4px;
}
.dashed {
  border-top: 2px dashed var(--quench);
  margin-left: 14px;
}
@media (max-width: 760px) {
  .charts {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
