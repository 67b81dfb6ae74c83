<script setup lang="ts">
import type { Caution } from '../api/client'
import { useChoices } from '../api/queries'
import { say } from '../settings'

/** The cautions for the task at hand: the first in sight, the rest one touch away. */
const { cautions, state } = defineProps<{ cautions: Caution[]; state: string }>()
const { data: choices } = useChoices()
</script>

<template>
  <details class="caution">
    <summary>
      <svg viewBox="0 0 20 18" aria-hidden="true"><path d="M10 1.5 19 17H1z M10 7v5 M10 14.4v.2" /></svg>
      <span>
        <b>{{ state }}</b>
        {{ say(cautions[0]?.text ?? '') }}
      </span>
    </summary>
    <ul>
      <li v-for="c in cautions.slice(1)" :key="c.id">{{ say(c.text) }}</li>
    </ul>
    <p class="small soft">{{ choices?.cautions.deference }}</p>
  </details>
</template>

<style scoped>
.caution {
  border: 1px solid var(--hair);
  border-radius: 3px;
  font-size: 13.5px;
  line-height: 1.35;
}
summary {
  display: flex;
  gap: 10px;
  padding: 8px 10px;
  cursor: pointer;
  list-style: none;
  align-items: flex-start;
}
summary::after {
  content: '+';
  color: var(--ink-2);
  margin-left: auto;
  font-size: 20px;
  line-height: 1;
}
details[open] summary::after {
  content: '–';
}
svg {
  width: 20px;
  flex: none;
  fill: none;
  stroke: var(--ember);
  stroke-width: 1.6;
  stroke-linejoin: round;
  stroke-linecap: round;
  margin-top: 1px;
}
ul {
  margin: 0;
  padding: 0 12px 6px 40px;
  display: grid;
  gap: 5px;
}
p {
  padding: 0 12px 10px 40px;
}
</style>
