<script setup lang="ts">
import BenchNav from './BenchNav.vue'
import ToothedBench from './toothed/ToothedBench.vue'
import type { Family } from './toothed/useToothed'

/** Which toothed belt or chain, without a drive. */
const { family } = defineProps<{ family: Family }>()
</script>

<template>
  <div class="bench">
    <BenchNav :here="family === 'roller chain' ? 'chain' : 'toothed'" />
    <ToothedBench :key="family" :family="family" />
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
}
@media (max-width: 760px) {
  .bench {
    display: block;
  }
}
</style>
