<script setup lang="ts">
import { computed, inject } from 'vue'

import { say } from '../../settings'
import { answersKey } from '../../sheet/useSheet'
import { alignKey } from './useAlign'

/** Both targets as each is seen face-on: where the other's line falls, out to the outer side. */
const { reading } = defineProps<{ reading: number }>()
const desk = inject(alignKey)!
const answers = inject(answersKey)!
const a = computed(() => desk.answer.value!)
/** In mm, from what the field was understood as. */
function place(key: string): number | null {
  const entry = desk.align.value.readings[reading]?.quantities?.[key]
  const said = entry?.text ? answers.note(`r${reading + 1}_${key}`)?.si : undefined
  const mm = said ? Number.parseFloat(said.replace('−', '-').replace(/\s/g, '')) : NaN
  return Number.isFinite(mm) ? mm : null
}
const most = computed(() =>
  Math.max(6, ...['at_movable', 'at_still', 'tilt'].map((k) => Math.abs(place(k) ?? 0) * 1.3)),
)
const targets = computed(() => [
  { key: 'at_movable', name: a.value.moving_name, out: 1, tilt: place('tilt') ?? 0 },
  { key: 'at_still', name: a.value.still_name, out: -1, tilt: 0 },
])
const x = (key: string, out: number) => 50 + (out * 34 * (place(key) ?? 0)) / most.value
</script>

<template>
  <div class="targets">
    <figure v-for="t in targets" :key="t.key">
      <svg viewBox="0 0 100 74" role="img" :aria-label="`Target on the ${t.name}`">
        <rect x="8" y="6" width="84" height="58" rx="3" />
        <path d="M50 6v58 M33 6v58 M67 6v58" class="mark" />
        <path
          v-if="place(t.key) !== null"
          :d="`M${x(t.key, t.out) + (17 * t.tilt * t.out) / most} 8L${x(t.key, t.out) - (17 * t.tilt * t.out) / most} 62`"
          class="line"
        />
        <text :x="t.out > 0 ? 90 : 10" y="72" :text-anchor="t.out > 0 ? 'end' : 'start'">out</text>
      </svg>
      <figcaption>on the {{ say(t.name) }}, face-on</figcaption>
    </figure>
  </div>
</template>

<style scoped>
.targets {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
figure {
  margin: 0;
}
svg {
  width: 100%;
}
rect {
  fill: var(--paper);
  stroke: var(--ink);
}
.mark {
  stroke: var(--ink-2);
  stroke-width: 0.6;
  stroke-dasharray: 2 2;
}
.line {
  stroke: var(--ember);
  stroke-width: 2.4;
}
text {
  font-size: 8px;
  fill: var(--ink-2);
}
figcaption {
  font-size: 12.5px;
  text-align: center;
}
</style>
