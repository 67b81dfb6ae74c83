<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

import { useFamilies } from '../api/queries'
import ToothedWork from '../drives/teeth/ToothedWork.vue'
import { completedFitted, type ToothedForm } from '../sheet/form'
import BenchNav from './BenchNav.vue'

/** Which toothed belt or chain, without a drive. */
const { family, here } = defineProps<{ family: string; here: 'toothed' | 'chain' }>()
const { data: kinds } = useFamilies()
const kind = computed(() => kinds.value?.families.find((f) => f.key === family))
const drafts = useLocalStorage<Record<string, ToothedForm>>('tuyere-bench-toothed', {})
const form = computed({
  get: () => (drafts.value[family] ?? completedFitted(family)) as ToothedForm,
  set: (value) => (drafts.value = { ...drafts.value, [family]: value }),
})
form.value = completedFitted(family, drafts.value[family]) as ToothedForm
</script>

<template>
  <div class="bench">
    <BenchNav :here="here" />
    <ToothedWork v-if="kind" :key="family" v-model="form" :kind="kind" />
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
