<script setup lang="ts">
import type { Verdict } from '../api/client'
import { say } from '../settings'

/** Verdicts as sentences: a sign and a word for the weight, the headline, the reason and how sure. */
const { verdicts } = defineProps<{ verdicts: Verdict[] }>()
const WORDS: Record<string, string> = { good: 'In order', watch: 'Attention', stop: 'Stop', open: 'Open' }
const SIGNS: Record<string, string> = { good: '✓', watch: '▲', stop: '■', open: '○' }
</script>

<template>
  <div v-for="v in verdicts" :key="v.topic + v.headline" class="verdict" :class="v.tone">
    <span class="sr">{{ WORDS[v.tone] }}:</span>
    <h3>
      <span aria-hidden="true" class="sign">{{ SIGNS[v.tone] }}</span>
      {{ say(v.headline) }}
    </h3>
    <p v-if="v.detail">
      {{ say(v.detail) }}
      <span v-if="v.sureness && v.tone !== 'open'" class="soft">({{ v.sureness }})</span>
    </p>
  </div>
</template>

<style scoped>
.verdict {
  border-left: 4px solid var(--hair);
  padding: 2px 0 2px 12px;
}
.verdict.watch,
.verdict.stop {
  border-left-color: var(--ember);
}
.verdict.good {
  border-left-color: var(--within);
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
.good .sign {
  color: var(--within);
}
.watch .sign,
.stop .sign {
  color: var(--ember);
  font-size: 0.62em;
  vertical-align: 2px;
  width: 1.5em;
}
.verdict p {
  font-size: 14.5px;
}
</style>
