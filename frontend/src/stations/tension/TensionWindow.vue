<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Sheet } from '../../api/client'
import { inSystem, NEWTON_PER_LBF, settings } from '../../settings'

/** One scale of strand tension for this drive: too slack, right, too tight, and where the readings lie on it. */
const { figures, fresh } = defineProps<{ figures: Sheet['figures']; fresh: boolean }>()
const frame = ref<HTMLElement>()
const { width } = useElementSize(frame)

const strands = computed(() =>
  Object.keys(figures)
    .filter((k) => /^strand_\d+$/.test(k))
    .map((k) => figures[k]!),
)
const marks = computed(() => {
  const low = figures.tension_low!.value_si
  const newLow = figures.tension_new_low!.value_si
  const high = figures.tension_high!.value_si
  const far = Math.max(high * 1.35, ...strands.value.map((s) => s.value_si + 2 * s.std_si))
  const near = Math.min(low * 0.45, ...strands.value.map((s) => s.value_si - 2 * s.std_si))
  const from = Math.max(0, near)
  const w = Math.max(100, width.value)
  const x = (n: number) => ((n - from) / (far - from)) * w
  const unit = settings.value.system === 'us' ? NEWTON_PER_LBF : 1
  const rough = (far - from) / unit / 5
  const step = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find((s) => s >= rough) ?? 2000
  const ticks = []
  for (let t = Math.ceil(from / unit / step) * step; t * unit <= far; t += step)
    ticks.push({ x: x(t * unit), text: String(t) })
  return {
    low: x(low),
    newLow: x(newLow),
    high: x(high),
    running: figures.tension_running ? x(figures.tension_running.value_si) : null,
    w,
    ticks,
    x,
  }
})
const text = computed(
  () =>
    `Tension window: right from ${inSystem(figures[fresh ? 'tension_new_low' : 'tension_low']!)} to ${inSystem(figures.tension_high!)} a strand.`,
)
</script>

<template>
  <figure ref="frame">
    <figcaption>
      <b>Tension window</b>
      <span class="soft small">{{ inSystem({ us: 'lbf', si: 'N' }) }} a strand, at rest</span>
    </figcaption>
    <svg :width="marks.w" :height="92 + strands.length * 15" role="img" :aria-label="text">
      <rect x="0" y="26" :width="marks.low" height="22" class="out" />
      <rect :x="marks.low" y="26" :width="marks.high - marks.low" height="22" class="in" />
      <rect :x="marks.high" y="26" :width="Math.max(0, marks.w - marks.high)" height="22" class="out" />
      <rect :x="marks.newLow" y="26" :width="marks.high - marks.newLow" height="22" class="fresh" />
      <line v-for="m in [marks.low, marks.high]" :key="m" :x1="m" :x2="m" y1="20" y2="52" class="edge" />
      <text :x="Math.max(2, marks.low - 6)" y="17" :text-anchor="marks.low > 60 ? 'end' : 'start'" class="word">
        slips
      </text>
      <text :x="marks.low + 4" y="17" class="word">run in</text>
      <text :x="marks.newLow + 4" y="17" class="word">new</text>
      <text :x="Math.min(marks.high + 4, marks.w - 60)" y="17" class="word">hard on bearings</text>
      <g v-for="t in marks.ticks" :key="t.text">
        <line :x1="t.x" :x2="t.x" y1="48" y2="53" class="edge" />
        <text :x="t.x" y="66" text-anchor="middle" class="tick">{{ t.text }}</text>
      </g>
      <template v-if="marks.running !== null">
        <path :d="`M ${marks.running} 48 l -4 8 h 8 z`" class="running" />
      </template>
      <g v-for="(s, i) in strands" :key="s.key">
        <line
          :x1="marks.x(Math.max(0, s.value_si - 2 * s.std_si))"
          :x2="marks.x(s.value_si + 2 * s.std_si)"
          :y1="82 + i * 15"
          :y2="82 + i * 15"
          class="doubt"
        />
        <circle :cx="marks.x(s.value_si)" :cy="82 + i * 15" r="4.5" class="read" />
        <text :x="Math.min(marks.w - 40, marks.x(s.value_si + 2 * s.std_si) + 6)" :y="86 + i * 15" class="tick">
          belt {{ i + 1 }}
        </text>
      </g>
    </svg>
    <p v-if="figures.tension_running" class="small soft">
      {{ `▲ plate power alone, no service factor: ${inSystem(figures.tension_running)}` }}
    </p>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  border-top: 1px solid var(--hair);
  padding-top: 10px;
  min-width: 0;
  overflow: hidden;
}
svg {
  display: block;
  max-width: 100%;
}
.out {
  fill: var(--ember-tint);
}
.in {
  fill: var(--within-tint);
}
.fresh {
  fill: var(--within);
  opacity: 0.35;
}
.edge {
  stroke: var(--ink);
}
.word {
  font-size: 12px;
  fill: var(--ink);
  font-stretch: 76%;
  font-family: var(--font);
}
.tick {
  font-size: 12px;
  fill: var(--ink-2);
  font-family: var(--font);
  font-stretch: 80%;
}
.running {
  fill: var(--ink);
}
.doubt {
  stroke: var(--ink-2);
  stroke-width: 3;
  stroke-linecap: round;
  opacity: 0.5;
}
.read {
  fill: var(--ink);
}
figcaption span {
  margin-left: 6px;
}
</style>
