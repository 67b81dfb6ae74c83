<script setup lang="ts">
import type { Problem } from '../api/client'
import MeterDoubt from './MeterDoubt.vue'

/** Hour meter and a note, kept with a reading. */
const hours = defineModel<string>('hours', { required: true })
const note = defineModel<string>('note', { required: true })
const { problem } = defineProps<{ problem: Problem | null }>()
</script>

<template>
  <div class="foot">
    <label>
      Hour meter
      <input v-model="hours" data-entry inputmode="decimal" maxlength="60" placeholder="–" />
    </label>
    <label class="grow">
      Note
      <input v-model="note" data-entry maxlength="2000" placeholder="what you saw or heard" />
    </label>
    <MeterDoubt v-model="hours" :problem="problem" />
  </div>
</template>

<style scoped>
.foot {
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
}
label {
  display: grid;
  gap: 3px;
  font-size: 13.5px;
  font-weight: 560;
  width: 110px;
}
.grow {
  flex: 1;
  min-width: 150px;
}
input {
  min-height: 44px;
  width: 100%;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 10px;
  font: inherit;
  font-size: 16px;
}
input:focus {
  outline: none;
  border-color: var(--focus);
  box-shadow: 0 0 0 1px var(--focus);
}
</style>
