<script setup lang="ts">
import type { Verdict } from '../api/client'
import { say } from '../settings'

/** Verdicts as sentences: a sign and a word for the weight, the headline, the reason and how sure. */
const { verdicts, fold = false } = defineProps<{ verdicts: Verdict[]; fold?: boolean }>()
/** With many at once, what needs nothing done is one line until it is opened. */
const folds = (v: Verdict) => fold && v.detail && (v.tone === 'good' || v.tone === 'open')
const WORDS: Record<string, string> = { good: 'In order', watch: 'Attention', stop: 'Stop', open: 'Open' }
const SIGNS: Record<string, string> = { good: '✓', watch: '▲', stop: '■', open: '○' }
</script>

<template>
  <component
    :is="folds(v) ? 'details' : 'div'"
    v-for="v in verdicts"
    :key="v.topic + v.headline"
    class="verdict"
    :class="[v.tone, { folds: folds(v) }]"
  >
    <component :is="folds(v) ? 'summary' : 'div'">
      <span class="sr">{{ WORDS[v.tone] }}:</span>
      <h3>
        <span aria-hidden="true" class="sign">{{ SIGNS[v.tone] }}</span>
        {{ say(v.headline) }}
      </h3>
    </component>
    <p v-if="v.detail">
      {{ say(v.detail) }}
      <span v-if="v.sureness && v.tone !== 'open'" class="soft">({{ v.sureness }})</span>
    </p>
  </component>
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
.folds h3 {
  font-size: 16px;
  display: inline;
}
.folds summary {
  cursor: pointer;
  min-height: 32px;
  display: flex;
  align-items: center;
  gap: 4px;
}
.folds summary::after {
  content: '▾';
  color: var(--ink-2);
  margin-left: auto;
}
.folds[open] summary::after {
  content: '▴';
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
