<script setup lang="ts">
import { computed } from 'vue'

import { say } from '../settings'

export interface Step {
  key: string
  label: string
  done: boolean
}

/** Before there is anything to draw to scale: what to measure, numbered in order, ticked off when done. */
const { steps } = defineProps<{ steps: Step[] }>()
const due = computed(() => steps.find((s) => !s.done)?.key)
const PLACES: Record<string, [number, number]> = {
  section: [206, 70],
  driver_diameter: [62, 92],
  driven_diameter: [330, 52],
  centre_distance: [186, 196],
  travel_in: [112, 168],
  travel_out: [36, 168],
}
const state = (s: Step) => (s.done ? 'done' : s.key === due.value ? 'next' : 'later')
</script>

<template>
  <div class="teach stack">
    <svg
      viewBox="0 0 420 214"
      role="img"
      :aria-label="`To measure, in order: ${steps.map((s, i) => `${i + 1} ${say(s.label)}${s.done ? ', done' : ''}`).join('; ')}`"
    >
      <circle cx="90" cy="120" r="42" />
      <circle cx="310" cy="84" r="74" />
      <path d="M81 79 L294 12 M97 161 L326 156" />
      <path d="M58 93 L122 147 M250 41 L370 127" class="dim" />
      <path d="M90 120 V204 M310 84 V204 M90 196 H310" class="dim" />
      <g v-for="(s, i) in steps" :key="s.key" :class="state(s)" :transform="`translate(${PLACES[s.key]?.join(' ')})`">
        <circle r="12" class="no" />
        <text y="4.5" text-anchor="middle">{{ s.done ? '✓' : i + 1 }}</text>
      </g>
    </svg>
    <h2>Nothing to draw yet</h2>
    <ol>
      <li v-for="(s, i) in steps" :key="s.key" :class="state(s)">
        <span aria-hidden="true">{{ s.done ? '✓' : i + 1 }}</span>
        {{ say(s.label) }}
        <span v-if="s.done" class="sr">done</span>
      </li>
    </ol>
    <p class="soft">Lock the drive out first. The drawing appears here, to scale, as you measure.</p>
  </div>
</template>

<style scoped>
.teach {
  max-width: 30em;
  gap: 10px;
}
svg {
  fill: none;
  stroke: var(--hair);
  stroke-width: 2;
}
.dim {
  stroke-width: 1.2;
  stroke-dasharray: 5 4;
  stroke: var(--ink-2);
}
.no {
  fill: var(--paper);
  stroke: var(--ink-2);
  stroke-width: 1.2;
}
text {
  fill: var(--ink-2);
  stroke: none;
  font-size: 13px;
  font-weight: 640;
}
.done .no {
  fill: var(--ink);
  stroke: var(--ink);
}
.done text {
  fill: var(--paper);
}
.next .no {
  stroke: var(--ember);
  stroke-width: 2.2;
}
.next text {
  fill: var(--ember);
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 2px;
}
li > span:first-child {
  display: inline-block;
  width: 1.4em;
  font-weight: 640;
}
li.next {
  color: var(--ember);
  font-weight: 620;
}
li.done {
  color: var(--ink-2);
}
@media (max-width: 760px) {
  svg {
    max-height: 110px;
  }
  h2,
  ol,
  p {
    display: none;
  }
}
</style>
