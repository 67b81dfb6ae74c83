<script setup lang="ts">
import { computed, inject } from 'vue'

import { say } from '../../settings'
import MeasureField from '../../sheet/MeasureField.vue'
import { answersKey } from '../../sheet/useSheet'
import AlignCheckPicture from './AlignCheckPicture.vue'
import { alignKey } from './useAlign'

/** Quick looks before reading: each ticked, measured, or skipped with a reason. */
const desk = inject(alignKey)!
const answers = inject(answersKey)!
const checks = computed(() => desk.answer.value!.checks)
const form = computed(() => desk.align.value.checks)
const done = computed(() => checks.value.filter((c) => c.said).length)
const ASKS: Record<string, string> = {
  soft_1: 'Foot 1 rises',
  soft_2: 'Foot 2 rises',
  soft_3: 'Foot 3 rises',
  soft_4: 'Foot 4 rises',
  rim_moving: 'Rim run-out, moving wheel',
  face_moving: 'Face run-out, moving wheel',
  rim_still: 'Rim run-out, fixed wheel',
  face_still: 'Face run-out, fixed wheel',
  shaft_moving: 'Shaft swings',
}
const SAID = [
  { value: 'ok', label: 'In order' },
  { value: 'bad', label: 'Not' },
  { value: 'skip', label: 'Pass over' },
] as const
function say_(key: string, value: string): void {
  form.value.words[key] = form.value.words[key] === value ? '' : value
}
const mark = (tone: string, said: string) => (tone === 'watch' || tone === 'stop' ? '▲' : said ? '✓' : '')
</script>

<template>
  <details class="checks">
    <summary>
      <span>Before you read: {{ done }} of {{ checks.length }} looked at</span>
      <span v-if="checks.some((c) => c.tone === 'watch')" class="ember">▲ put right first</span>
    </summary>
    <ol>
      <li v-for="c in checks" :key="c.key">
        <AlignCheckPicture :check="c.key" />
        <div>
          <b
            >{{ c.title }} <span :class="c.tone === 'watch' ? 'ember' : 'ok'">{{ mark(c.tone, c.said) }}</span></b
          >
          <p class="small">{{ say(c.how) }}</p>
          <div v-if="c.asks.length" class="two">
            <MeasureField
              v-for="k in c.asks"
              :key="k"
              :model-value="desk.entry(form.quantities, k, k.startsWith('soft') ? 'foot_gap' : 'run_out')"
              :name="k"
              :field="k.startsWith('soft') ? 'foot_gap' : 'run_out'"
              :label="ASKS[k] ?? k"
              tight
              @update:model-value="form.quantities[k] = $event"
            />
          </div>
          <div v-if="c.said !== 'measured'" class="row" role="group" :aria-label="c.title">
            <button
              v-for="s in SAID"
              :key="s.value"
              type="button"
              :aria-pressed="form.words[c.key] === s.value"
              :class="{ on: form.words[c.key] === s.value }"
              @click="say_(c.key, s.value)"
            >
              {{ s.label }}
            </button>
          </div>
          <label v-if="form.words[c.key] === 'skip' && c.said !== 'measured'" class="why">
            <span class="small">Why</span>
            <input
              :value="form.words[`${c.key}_why`] ?? ''"
              data-entry
              maxlength="200"
              @input="form.words[`${c.key}_why`] = ($event.target as HTMLInputElement).value"
            />
            <span class="small ember">{{ answers.problem(`${c.key}_why`)?.sentence }}</span>
          </label>
          <p v-if="c.means" class="small" :class="{ ember: c.tone === 'watch' }">{{ say(c.means) }}</p>
        </div>
      </li>
    </ol>
  </details>
</template>

<style scoped>
.checks {
  border-top: 1px solid var(--hair);
  border-bottom: 1px solid var(--hair);
}
summary {
  min-height: 46px;
  display: flex;
  align-items: center;
  justify-content: space-between;
  cursor: pointer;
  font-weight: 560;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0 0 10px;
  display: grid;
  gap: 16px;
}
li {
  display: grid;
  grid-template-columns: 60px minmax(0, 1fr);
  gap: 10px;
}
li > div {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 12px;
}
.row button {
  min-height: 44px;
  padding: 0 14px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  cursor: pointer;
}
.row .on {
  background: var(--ink);
  color: var(--sheet);
  border-color: var(--ink);
}
.ok {
  color: var(--within);
}
.why input {
  min-height: 44px;
  width: 100%;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 10px;
  font: inherit;
}
</style>
