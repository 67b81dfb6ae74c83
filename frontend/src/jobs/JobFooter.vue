<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core'
import { nextTick, ref } from 'vue'

import type { JobStep } from './useJobs'

/** What can be said of the step in hand; shown anew for each. `later`: the steps behind it that go back with it. */
const { step, driveId, later } = defineProps<{ step: JobStep; driveId: string; later: number }>()
const emit = defineEmits<{ done: []; skip: [why: string]; back: []; on: [] }>()
const passing = ref(false)
const takingBack = ref(false)
const why = ref('')
const whyField = ref<HTMLInputElement>()
/** A double tap does not pass two steps: one cannot be done in the first moment that it is shown. */
const ready = ref(false)
useTimeoutFn(() => (ready.value = true), step.shown_s * 1000)
async function pass(): Promise<void> {
  passing.value = true
  await nextTick()
  whyField.value?.focus()
}
function back(): void {
  if (later && !takingBack.value) {
    takingBack.value = true
    return
  }
  takingBack.value = false
  emit('back')
}
</script>

<template>
  <footer class="no-print">
    <form v-if="passing" @submit.prevent="why.trim() && emit('skip', why.trim())">
      <label>
        <span class="sr">Why can it not be done?</span>
        <input ref="whyField" v-model="why" maxlength="400" placeholder="Why can it not be done?" />
      </label>
      <button type="submit" class="pass" :disabled="!why.trim()">Skip</button>
      <button type="button" class="pass" @click="passing = false">Cancel</button>
    </form>
    <template v-else-if="step.standing">
      <template v-if="takingBack">
        <button type="button" class="pass" @click="back">
          Take back this step and {{ later === 1 ? 'the later one' : `${later} later ones` }}
        </button>
        <button type="button" class="done" @click="takingBack = false">Cancel</button>
      </template>
      <template v-else>
        <button type="button" class="pass" @click="back">Take it back</button>
        <button type="button" class="done" @click="emit('on')">Go on</button>
      </template>
    </template>
    <template v-else>
      <button type="button" class="pass" @click="pass">Can’t do it</button>
      <button type="button" :class="step.not_measured ? 'pass' : 'done'" :disabled="!ready" @click="emit('done')">
        {{ step.not_measured ? 'Not measured' : 'Done' }}
      </button>
      <router-link
        v-if="step.not_measured"
        class="done"
        :to="`/drives/${driveId}/${step.read}`"
        :aria-label="`Take the reading at ${step.read.split('/')[0]}`"
      >
        Take the reading ›
      </router-link>
    </template>
  </footer>
</template>

<style scoped>
footer {
  position: sticky;
  bottom: 0;
  display: flex;
  gap: 12px;
  padding: 12px 20px;
  background: var(--paper);
  border-top: 1px solid var(--hair);
  z-index: 2;
}
footer form {
  display: contents;
}
footer label {
  flex: 1;
}
footer input {
  width: 100%;
  min-height: 64px;
  font: inherit;
  font-size: 18px;
  padding: 0 14px;
  border: 1px solid var(--ink);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
}
footer button {
  min-height: 64px;
  border-radius: 3px;
  font-size: 21px;
  font-weight: 640;
  cursor: pointer;
}
.pass {
  flex: 1;
  border: 1px solid var(--ink);
  background: var(--sheet);
  color: var(--ink);
}
.pass:disabled {
  opacity: 0.5;
}
.done {
  flex: 2;
  border: 0;
  background: var(--ink);
  color: var(--paper);
}
footer .done {
  background: var(--ink);
}
footer a.done {
  min-height: 64px;
  display: grid;
  place-items: center;
  border-radius: 3px;
  color: var(--paper);
  font-size: 21px;
  font-weight: 640;
  text-align: center;
  text-decoration: none;
}
@media (max-width: 760px) {
  footer:has(a.done) > * {
    font-size: 17px;
    flex: 1;
  }
}
@media (max-width: 760px) {
  footer {
    padding: 8px 10px;
    bottom: var(--rail-bottom, 0);
  }
}
</style>
