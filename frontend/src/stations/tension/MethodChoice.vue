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

<style src="../methods.css" scoped></style>
