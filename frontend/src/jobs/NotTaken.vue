<script setup lang="ts">
import { computed, reactive, watch } from 'vue'

import { say } from '../settings'
import { when } from '../words'
import type { Said } from './queue'
import type { JobWork } from './useJobWork'

/** What this device said and the record did not take: the refused step to be mended or withdrawn, and what waits behind it, in order. */
const { work } = defineProps<{ work: JobWork }>()
const stuck = work.stuck
const form = reactive({ words: '', at: '' })
/** A time as the field of the browser has it, by this device's own zone. */
const local = (iso: string): string => {
  const at = new Date(iso)
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16)
}
watch(
  () => stuck.value[0]?.key,
  () => {
    form.words = stuck.value[0]?.words ?? ''
    form.at = stuck.value[0] ? local(stuck.value[0].at) : ''
  },
  { immediate: true },
)
/** How the step that was refused stands for everybody else. */
const stands = computed(() => work.job.value?.steps.find((s) => s.key === stuck.value[0]?.step))
const SAYS = { done: 'Done', passed: 'Skipped', '': 'Taken back' }
function again(one: Said): void {
  const typed = form.at && form.at !== local(one.at) ? new Date(form.at).toISOString() : one.at
  work.mend(one, form.words.trim(), typed)
}
</script>

<template>
  <section v-if="stuck.length" class="stuck" aria-labelledby="not-taken">
    <h2 id="not-taken">Not on the record</h2>
    <ol>
      <li v-for="(one, i) in stuck" :key="one.key" :class="{ behind: i > 0 }">
        <div>
          <b>{{ one.do ? say(one.do) : one.step }}</b>
          <p class="soft small">
            {{ SAYS[one.standing] }}, {{ when(one.at) }}{{ i > 0 ? ': waits behind the step above' : '' }}
            <template v-if="one.words && i > 0"> “{{ one.words }}”</template>
          </p>
        </div>
        <template v-if="i === 0">
          <p class="ember" role="alert">{{ one.refused }}</p>
          <p v-if="stands?.standing" class="small">
            On the record: {{ SAYS[stands.standing].toLowerCase() }} by {{ stands.who
            }}{{ stands.words ? `: ${stands.words}` : '' }}
          </p>
          <label v-if="one.field === 'at'" class="small">
            When it was done
            <input v-model="form.at" type="datetime-local" />
          </label>
          <label v-if="one.field === 'words' || one.words" class="small">
            {{ one.standing === 'passed' ? 'Why it is skipped' : 'Note' }}
            <el-input v-model="form.words" maxlength="400" />
          </label>
        </template>
        <p class="does">
          <button v-if="i === 0" type="button" @click="again(one)">Send again</button>
          <button type="button" @click="work.withdraw(one)">Withdraw</button>
        </p>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.stuck {
  margin: 8px 20px 0;
  border: 1px solid var(--ember);
  border-radius: 3px;
  background: var(--sheet);
  padding: 10px 14px;
  max-height: 50vh;
  overflow-y: auto;
}
h2 {
  font-size: 17px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  gap: 6px;
  padding: 8px 0;
  border-top: 1px solid var(--hair);
}
.behind {
  grid-template-columns: 1fr auto;
  align-items: center;
}
.does {
  display: flex;
  gap: 10px;
}
button {
  min-height: 44px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--paper);
  color: var(--ink);
  padding: 0 14px;
  font-weight: 600;
  cursor: pointer;
}
input {
  display: block;
  min-height: 44px;
  font: inherit;
  padding: 0 10px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--paper);
  color: var(--ink);
}
@media (max-width: 760px) {
  .stuck {
    margin: 6px 10px 0;
  }
}
</style>
