<script setup lang="ts">
import { computed, inject, ref } from 'vue'

import { say } from '../../settings'
import MethodPicture from './MethodPicture.vue'
import { tensionKey } from './useTension'

/** The ways to measure this stage, each with its picture. */
const desk = inject(tensionKey)!
const chosen = computed(() => desk.method.value)
const open = ref(false)
function choose(key: string): void {
  desk.choose(key)
  open.value = false
}
</script>

<template>
  <button type="button" class="bare chosen" :aria-expanded="open" @click="open = !open">
    <MethodPicture v-if="chosen" :method="chosen.key" />
    <span>
      <span class="soft small">Measured by</span>
      <b>{{ say(chosen?.label ?? '') }}</b>
    </span>
    <u class="small">{{ open ? 'this one' : 'another way' }}</u>
  </button>
  <div v-if="open" class="methods" role="radiogroup" aria-label="Measured by">
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
        @change="choose(m.key)"
      />
      <MethodPicture :method="m.key" />
      {{ say(m.label) }}
    </label>
  </div>
</template>

<style scoped>
.chosen {
  display: grid;
  grid-template-columns: 72px 1fr auto;
  gap: 12px;
  align-items: center;
  text-align: left;
  min-height: 56px;
  width: 100%;
  border: 1px solid var(--hair);
  border-radius: 3px;
  padding: 4px 12px 4px 8px;
}
.chosen > span {
  display: grid;
}
.chosen b {
  font-stretch: 80%;
  font-size: 16px;
}
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
