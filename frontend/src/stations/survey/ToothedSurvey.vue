<script setup lang="ts">
import { computed, inject } from 'vue'

import type { DriveOut } from '../../api/client'
import { sheetKey } from '../../sheet/useSheet'
import type { Family, ToothedForm } from '../../sheet/toothed/toothedForm'
import ToothedWork from '../../sheet/toothed/ToothedWork.vue'
import DriverFields from './DriverFields.vue'
import FamilySlip from './FamilySlip.vue'
import KeepSurvey from './KeepSurvey.vue'

/** Survey of a drive by toothed belt or chain: what it is, its wheels and its length, kept on the record. */
const { drive, family } = defineProps<{ drive: DriveOut; family: Family }>()
const state = inject(sheetKey)!
const form = computed({
  get: () => state.form.value.survey.toothed as ToothedForm,
  set: (value) => (state.form.value.survey.toothed = value),
})
</script>

<template>
  <ToothedWork v-model="form" :family="family">
    <template #keep>
      <DriverFields />
      <FamilySlip :drive="drive" />
      <KeepSurvey :drive="drive" :usual="drive.configuration_id ? 'surveyed again' : 'first survey'" />
    </template>
  </ToothedWork>
</template>
