<script setup lang="ts">
import { computed } from 'vue'

import { say } from '../settings'
import type { MachineAsk } from './useJobs'

/** What is asked of the machine before a job, ticked as guessed or as it was answered last; nothing is taken from its name alone. */
const { asks } = defineProps<{ asks: MachineAsk[] }>()
const answers = defineModel<Record<string, boolean>>({ required: true })
const shown = computed(() => asks.filter((a) => a.when.every((term) => term.split('|').some((t) => answers.value[t]))))
const answered = computed(() => asks.some((a) => a.kept !== null))
const today = computed(() => shown.value.filter((a) => a.today))
const lasting = computed(() => shown.value.filter((a) => !a.today))
const ticked = computed(() => lasting.value.filter((a) => answers.value[a.key]).map((a) => say(a.short)))
const set = (key: string, so: boolean) => (answers.value = { ...answers.value, [key]: so })
</script>

<template>
  <fieldset v-for="a in today" :key="a.key">
    <legend>{{ say(a.question) }}</legend>
    <div class="choose">
      <button type="button" :aria-pressed="answers[a.key] === true" @click="set(a.key, true)">Yes</button>
      <button type="button" :aria-pressed="answers[a.key] === false" @click="set(a.key, false)">No</button>
    </div>
  </fieldset>
  <details :open="!answered">
    <summary>
      <b>What is this machine?</b>
      <span class="small soft">{{ ticked.length ? ticked.join(', ') : 'nothing ticked' }}</span>
    </summary>
    <p class="small soft">
      {{ answered ? 'As it was answered last.' : 'Guessed from its name, place and survey.' }} Tick what is so, untick
      what is not: the lock-out is made from this.
    </p>
    <div class="ticks">
      <label v-for="a in lasting" :key="a.key" :class="{ so: answers[a.key] }">
        <input
          type="checkbox"
          :checked="answers[a.key]"
          @change="set(a.key, ($event.target as HTMLInputElement).checked)"
        />
        <span>
          {{ say(a.question) }}
          <span v-if="a.guess && a.kept === null && a.because" class="small soft">({{ a.because }})</span>
        </span>
      </label>
    </div>
  </details>
</template>

<style src="./choose.css" scoped></style>

<style scoped>
.choose button {
  min-width: 96px;
}
summary {
  min-height: 44px;
  padding: 8px 0;
  cursor: pointer;
}
summary b {
  margin-right: 10px;
}
.ticks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(320px, 1fr));
  gap: 0 20px;
  padding-top: 6px;
}
.ticks label {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
  font-size: 15px;
  line-height: 1.25;
  color: var(--ink-2);
}
.ticks .so {
  color: var(--ink);
  font-weight: 560;
}
.ticks input {
  accent-color: var(--ink);
  width: 22px;
  height: 22px;
  flex: none;
}
</style>
