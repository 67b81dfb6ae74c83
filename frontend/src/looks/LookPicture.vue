<script setup lang="ts">
import { computed } from 'vue'

import { LOOKS } from './looks'

/** What to look at, as a small drawing: wheels in the driven side's colour, the place that counts in ember. */
const { look } = defineProps<{ look: string }>()
const drawn = computed(() => LOOKS[look])
</script>

<template>
  <svg v-if="drawn" viewBox="0 0 120 80" class="drawn" aria-hidden="true">
    <path v-if="drawn.w" :d="drawn.w" class="w" />
    <path v-if="drawn.b" :d="drawn.b" class="b" />
    <path v-if="drawn.i" :d="drawn.i" class="i" />
    <path v-if="drawn.e" :d="drawn.e" class="e" />
  </svg>
</template>

<style scoped>
.drawn {
  display: block;
  width: 100%;
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.w {
  stroke: var(--quench);
  stroke-width: calc(1.6px * var(--line, 1));
}
.b {
  stroke: var(--belt);
  stroke-width: calc(2.6px * var(--line, 1));
}
.i {
  stroke: var(--ink-2);
  stroke-width: calc(1.6px * var(--line, 1));
}
.e {
  stroke: var(--ember);
  stroke-width: calc(2.8px * var(--line, 1));
}
</style>
