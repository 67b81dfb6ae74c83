<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

import { blankToothed, completedToothed, type Family, type ToothedForm } from '../sheet/toothed/toothedForm'
import ToothedWork from '../sheet/toothed/ToothedWork.vue'
import BenchNav from './BenchNav.vue'

/** Which toothed belt or chain, without a drive. */
const { family } = defineProps<{ family: Family }>()
const drafts = useLocalStorage<Record<string, ToothedForm>>('tuyere-bench-toothed', {})
const form = computed({
  get: () => drafts.value[family] ?? blankToothed(family),
  set: (value) => (drafts.value = { ...drafts.value, [family]: completedToothed(family, value) }),
})
if (!drafts.value[family]) form.value = blankToothed(family)
</script>

<template>
  <div class="bench">
    <BenchNav :here="family === 'roller chain' ? 'chain' : 'toothed'" />
    <ToothedWork :key="family" v-model="form" :family="family" />
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
