<script setup lang="ts">
import { computed, inject } from 'vue'

import { say } from '../settings'
import { sheetKey } from './useSheet'
import VerdictNotes from './VerdictNotes.vue'

/** What the sheet says at this station: the verdicts on its topics, else the next thing to measure; then the flags. */
const { topics, flags = [], next = '' } = defineProps<{ topics: string[]; flags?: string[]; next?: string }>()
const state = inject(sheetKey)!
const WEIGHT = ['stop', 'watch', 'open', 'good']
/** What wants attention first, then in the station's order. */
const verdicts = computed(() =>
  topics
    .flatMap((t) => state.sheet.value?.verdicts.filter((v) => v.topic === t) ?? [])
    .sort((a, b) => WEIGHT.indexOf(a.tone) - WEIGHT.indexOf(b.tone)),
)
const raised = computed(() => state.sheet.value?.flags.filter((f) => flags.includes(f.code)) ?? [])
</script>

<template>
  <div class="slip" :class="{ waiting: state.stale.value }" aria-live="polite">
    <VerdictNotes :verdicts="verdicts" />
    <div v-if="!verdicts.length && next" class="verdict open">
      <h3>
        <span aria-hidden="true" class="sign">→</span>
        {{ say(next) }}
      </h3>
    </div>
    <ul v-if="raised.length">
      <li v-for="f in raised" :key="f.code + f.field">
        <span aria-hidden="true" class="sign ember">▲</span>
        {{ say(f.sentence) }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.slip {
  display: grid;
  gap: 10px;
}
.waiting {
  opacity: 0.6;
}
.verdict {
  border-left: 4px solid var(--hair);
  padding: 2px 0 2px 12px;
}
.verdict.open {
  border-left-color: var(--ink-2);
}
h3 {
  font-size: 19px;
}
.sign {
  display: inline-block;
  width: 1.2em;
  font-size: 0.8em;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
  font-size: 14px;
}
li {
  padding-left: 1.4em;
  text-indent: -1.4em;
}
li .sign {
  width: 1.4em;
  font-size: 10px;
  text-indent: 0;
}
</style>
