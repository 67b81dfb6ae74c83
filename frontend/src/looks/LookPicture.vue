<script setup lang="ts">
import { computed } from 'vue'

import { LOOKS } from './looks'

/** What to look at, as a small drawing: wheels in the driven side's colour, the place that counts in ember. */
const { look } = defineProps<{ look: string }>()
const drawn = computed(() => LOOKS[look])
</script>

<template>
  <svg v-if="drawn" viewBox="0 0 120 80" class="look" aria-hidden="true">
    <path v-if="drawn.w" :d="drawn.w" class="w" />
    <path v-if="drawn.b" :d="drawn.b" class="b" />
    <path v-if="drawn.i" :d="drawn.i" class="i" />
    <path v-if="drawn.e" :d="drawn.e" class="e" />
  </svg>
</template>

<style scoped>
.look {
  display: block;
  width: 100%;
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.w {
  stroke: var(--quench);
  stroke-width: 1.6;
}
.b {
  stroke: var(--belt);
  stroke-width: 2.6;
}
.i {
  stroke: var(--ink-2);
  stroke-width: 1.6;
}
.e {
  stroke: var(--ember);
  stroke-width: 2.8;
}
</style>
