<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'

import { api, type DriveOut, unwrap } from '../api/client'
import { useChoices } from '../api/queries'
import BenchNav from './BenchNav.vue'
import PracticeSheet from './PracticeSheet.vue'

/** A small motor facing a fan, to practise aligning on. */
const { data: choices } = useChoices()
const { data: practice } = useQuery({
  queryKey: ['practice'],
  queryFn: () => unwrap(api.GET('/api/calc/align/practice')),
  staleTime: Infinity,
})
const drive = computed(
  () =>
    practice.value &&
    ({
      id: 'practice',
      family: practice.value.sheet.survey!.stages![0]!.fitted!.family,
      row_version: 1,
      survey: practice.value.sheet.survey,
      alignments: [],
      tensions: [],
    } as unknown as DriveOut),
)
</script>

<template>
  <div class="bench">
    <BenchNav here="align" />
    <PracticeSheet v-if="drive && choices" :drive="drive" :choices="choices" />
    <p v-else class="soft wait">Setting the machine up…</p>
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
}
.wait {
  padding: 20px;
}
@media (max-width: 760px) {
  .bench {
    display: block;
  }
}
</style>
