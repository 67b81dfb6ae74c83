<script setup lang="ts">
import { computed, inject } from 'vue'

import type { DriveOut } from '../../api/client'
import { sheetKey } from '../../sheet/useSheet'
import type { ToothedForm } from '../../sheet/form'
import ToothedWork from './ToothedWork.vue'
import DriverFields from '../../stations/survey/DriverFields.vue'
import FamilySlip from '../../stations/survey/FamilySlip.vue'
import KeepSurvey from '../../stations/survey/KeepSurvey.vue'
import MoreWheels from '../../stations/survey/MoreWheels.vue'

/** Survey of a drive by toothed belt or chain: what it is, its wheels and its length, kept on the record. */
const { drive } = defineProps<{ drive: DriveOut }>()
const state = inject(sheetKey)!
const form = computed({
  get: () => state.first.value.fitted as ToothedForm,
  set: (value) => (state.first.value.fitted = value),
})
</script>

<template>
  <ToothedWork v-model="form" :kind="drive.kind">
    <template #keep>
      <MoreWheels :drive="drive" />
      <DriverFields />
      <FamilySlip :drive="drive" />
      <KeepSurvey :drive="drive" :usual="drive.configuration_id ? 'surveyed again' : 'first survey'" />
    </template>
  </ToothedWork>
</template>
