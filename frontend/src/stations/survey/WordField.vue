<script setup lang="ts">
import { computed, inject, ref } from 'vue'

import { say } from '../../settings'
import { focusNext } from '../../sheet/entries'
import { answersKey, focusKey } from '../../sheet/useSheet'

/** A word from a list, or a short text (a belt name, a count), with the server's problem beside it. */
const word = defineModel<string>({ required: true })
const {
  name,
  label,
  options,
  wide = false,
  placeholder = '–',
} = defineProps<{
  name: string
  label: string
  options?: { value: string; label: string }[]
  wide?: boolean
  placeholder?: string
}>()
const answers = inject(answersKey)!
const focus = inject(focusKey, ref(''))
const problem = computed(() => answers.problem(name)?.sentence)
const before = ref('')
function entered(): void {
  before.value = word.value
  focus.value = name
}
</script>

<template>
  <div class="field" :class="{ wrong: problem, wide }">
    <label :for="`f-${name}`">{{ say(label) }}</label>
    <select
      v-if="options"
      :id="`f-${name}`"
      v-model="word"
      data-entry
      @focus="entered"
      @keydown.enter.prevent="focusNext($event.target)"
    >
      <option v-if="!options.some((o) => o.value === '')" value="" disabled hidden>–</option>
      <option v-for="o in options" :key="o.value" :value="o.value">{{ say(o.label) }}</option>
    </select>
    <input
      v-else
      :id="`f-${name}`"
      v-model="word"
      data-entry
      autocomplete="off"
      autocapitalize="characters"
      spellcheck="false"
      enterkeyhint="next"
      :placeholder="placeholder"
      :aria-invalid="problem ? 'true' : undefined"
      @focus="entered"
      @keydown.enter.prevent="focusNext($event.target)"
      @keydown.esc="word = before"
    />
    <div class="under" aria-live="polite">{{ problem ? say(problem) : '' }}</div>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  gap: 3px;
  min-width: 0;
}
.wide {
  grid-column: 1 / -1;
}
label {
  font-size: 13.5px;
  font-weight: 560;
}
input,
select {
  min-height: 44px;
  width: 100%;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 10px;
  font: inherit;
  font-size: 16px;
  font-stretch: 80%;
  font-weight: 560;
  text-overflow: ellipsis;
}
input {
  font-size: 18px;
  font-weight: 600;
}
input::placeholder {
  font-weight: 400;
  font-size: 14px;
  color: var(--ink-2);
}
input:focus,
select:focus {
  outline: none;
  border-color: var(--focus);
  box-shadow: 0 0 0 1px var(--focus);
}
.wrong input,
.wrong select {
  border-color: var(--ember);
  box-shadow: inset 3px 0 0 var(--ember);
}
.under {
  color: var(--ember);
  font-weight: 560;
  font-size: 12.5px;
  line-height: 1.3;
}
</style>
