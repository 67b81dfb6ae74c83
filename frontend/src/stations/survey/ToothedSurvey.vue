<script setup lang="ts">
import { computed, inject, ref } from 'vue'

import type { DriveOut } from '../../api/client'
import { useMayWrite } from '../../api/queries'
import KeepBar from '../../sheet/KeepBar.vue'
import type { Family, ToothedForm } from '../../sheet/toothed/toothedForm'
import ToothedWork from '../../sheet/toothed/ToothedWork.vue'
import { type Standing, useKeepSurvey } from '../../sheet/useKeepSurvey'
import { sheetKey } from '../../sheet/useSheet'
import { when } from '../../words'
import ChangedMeanwhile from './ChangedMeanwhile.vue'
import StandingChoice from './StandingChoice.vue'

/** Survey of a drive by toothed belt or chain: what it is, its wheels and its length, kept on the record. */
const { drive, family } = defineProps<{ drive: DriveOut; family: Family }>()
const state = inject(sheetKey)!
const mayWrite = useMayWrite()
const form = computed({
  get: () => state.form.value.survey.toothed as ToothedForm,
  set: (value) => (state.form.value.survey.toothed = value),
})
const standing = ref<Standing>('as found')
const reason = ref('')
const keeper = useKeepSurvey(() => drive, state)
const why = computed(() => reason.value || (drive.configuration_id ? 'surveyed again' : 'first survey'))
</script>

<template>
  <ToothedWork v-model="form" :family="family">
    <template #keep>
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
        @mine="keeper.keep(standing, why, keeper.problem.value?.current_version ?? 1)"
        @theirs="keeper.refresh().then(() => (state.takeKept(), (keeper.problem.value = null)))"
      />
    </template>
  </ToothedWork>
</template>
