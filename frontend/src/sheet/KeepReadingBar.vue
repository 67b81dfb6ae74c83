<script setup lang="ts">
import { computed, inject } from 'vue'

import { useMayWrite } from '../api/queries'
import KeepBar from './KeepBar.vue'
import SurveyFirst from './SurveyFirst.vue'
import type { useKeepReading } from './useKeepReading'
import { sheetKey } from './useSheet'

/** The bar that keeps a reading: against the survey on the record, so a changed survey is kept first. */
const { keeper, read, idle, label } = defineProps<{
  keeper: Pick<ReturnType<typeof useKeepReading>, 'busy' | 'waiting' | 'problem' | 'kept' | 'keep' | 'retry'>
  read: boolean
  idle: string
  label: string
}>()
const state = inject(sheetKey)!
const mayWrite = useMayWrite()
const busy = computed(() => keeper.busy.value)
const waiting = computed(() => keeper.waiting.value)
</script>

<template>
  <KeepBar
    :busy="busy"
    :waiting="waiting"
    :problem="keeper.problem.value"
    :kept="read ? '' : keeper.kept.value"
    :may-write="mayWrite"
    :disabled="!read || state.dirty.value"
    :idle="read ? '' : idle"
    :label="label"
    @keep="keeper.keep()"
    @retry="keeper.retry"
  >
    <SurveyFirst v-if="read && state.dirty.value" />
  </KeepBar>
</template>
