<script setup lang="ts">
import { say } from '../settings'

/** Which stage of a train; nothing to choose where there is only one. */
const { stages } = defineProps<{ stages: { number: number; title: string }[] }>()
const stage = defineModel<number>({ required: true })
</script>

<template>
  <div v-if="stages.length > 1" class="stages" role="radiogroup" aria-label="Stage">
    <label v-for="s in stages" :key="s.number" :class="{ on: s.number === stage }">
      <input type="radio" class="sr" name="stage" :checked="s.number === stage" @change="stage = s.number" />
      {{ s.number }}. {{ say(s.title) }}
    </label>
  </div>
</template>

<style scoped>
.stages {
  display: grid;
  gap: 4px;
}
label {
  border: 1px solid var(--hair);
  border-radius: 3px;
  padding: 10px 12px;
  min-height: 44px;
  cursor: pointer;
}
.on {
  border-color: var(--ink);
  box-shadow: inset 4px 0 0 var(--ink);
  font-weight: 620;
}
label:focus-within {
  outline: 2px solid var(--focus);
  outline-offset: -3px;
}
</style>
