<script setup lang="ts">
import { inject } from 'vue'

import { say } from '../../settings'
import MethodPicture from './MethodPicture.vue'
import { tensionKey } from './useTension'

/** The ways to measure this stage, each with its picture. */
const desk = inject(tensionKey)!
</script>

<template>
  <div class="methods" role="radiogroup" aria-label="Measured by">
    <label
      v-for="m in desk.tight.value?.methods ?? []"
      :key="m.key"
      :class="{ on: m.key === desk.tight.value?.method }"
    >
      <input
        type="radio"
        class="sr"
        name="method"
        :checked="m.key === desk.tight.value?.method"
        @change="desk.choose(m.key)"
      />
      <MethodPicture :method="m.key" />
      {{ say(m.label) }}
    </label>
  </div>
</template>

<style scoped>
.methods {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 6px;
}
label {
  border: 1px solid var(--hair);
  border-radius: 3px;
  padding: 6px 6px 8px;
  min-height: 86px;
  display: grid;
  justify-items: center;
  align-content: start;
  gap: 2px;
  text-align: center;
  font-size: 13px;
  font-stretch: 80%;
  line-height: 1.15;
  cursor: pointer;
  color: var(--ink-2);
}
.on {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 1px var(--ink);
  color: var(--ink);
  font-weight: 620;
}
label:focus-within {
  outline: 2px solid var(--focus);
}
</style>
