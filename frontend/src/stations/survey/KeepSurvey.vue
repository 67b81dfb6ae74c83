<script setup lang="ts">
import { computed, inject, ref } from 'vue'

import type { DriveOut } from '../../api/client'
import { useMayWrite } from '../../api/queries'
import ChangedMeanwhile from '../../clash/ChangedMeanwhile.vue'
import KeepBar from '../../sheet/KeepBar.vue'
import { type Standing, useKeepSurvey } from '../../sheet/useKeepSurvey'
import { sheetKey } from '../../sheet/useSheet'
import { when } from '../../words'
import StandingChoice from './StandingChoice.vue'

/** Keeping what a Survey question typed: how it stands and why, busy, refused, and what to do when somebody else was first. */
const { drive, usual } = defineProps<{ drive: DriveOut; usual: string }>()
const state = inject(sheetKey)!
const mayWrite = useMayWrite()
const standing = ref<Standing>('as found')
const reason = ref('')
const keeper = useKeepSurvey(() => drive, state)
const why = computed(() => reason.value || usual)
async function theirs(): Promise<void> {
  await keeper.refresh()
  state.takeKept()
  keeper.problem.value = null
}
</script>

<template>
  <KeepBar
    :busy="keeper.busy.value"
    :waiting="keeper.waiting.value"
    :problem="keeper.problem.value"
    :kept="state.dirty.value ? '' : keeper.kept.value"
    :may-write="mayWrite"
    :disabled="!state.dirty.value"
    label="Keep this survey"
    :idle="drive.configuration_at ? `On the record since ${when(drive.configuration_at)}.` : 'Nothing typed yet.'"
    @keep="keeper.keep(standing, why)"
    @retry="keeper.retry"
  >
    <div v-if="state.dirty.value && mayWrite && drive.configuration_id" class="row">
      <StandingChoice v-model:standing="standing" v-model:reason="reason" />
    </div>
  </KeepBar>
  <ChangedMeanwhile
    v-if="keeper.problem.value?.status === 409"
    :problem="keeper.problem.value"
    :refresh="keeper.refresh"
    :mine="state.form.value.survey"
    :theirs="keeper.theirs.value"
    :was="state.was.value"
    @keep="(survey) => keeper.keepMerged(survey, standing, why)"
    @theirs="theirs"
  />
</template>
