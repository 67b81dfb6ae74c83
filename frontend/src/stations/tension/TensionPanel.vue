<script setup lang="ts">
import { inject } from 'vue'

import type { Choices, DriveOut } from '../../api/client'
import { sheetKey } from '../../sheet/useSheet'
import TrainPanel from '../train/TrainPanel.vue'
import TensionSaid from './TensionSaid.vue'
import TensionStation from './TensionStation.vue'

/** Tension: of a train stage by stage, of a kind that is not set here in words, of the rest by gauge. */
defineOptions({ inheritAttrs: false })
defineProps<{ drive: DriveOut; choices: Choices }>()
const state = inject(sheetKey)!
</script>

<template>
  <TrainPanel v-if="state.train.value" :drive="drive" :choices="choices" station="tension" />
  <TensionSaid v-else-if="state.sheet.value?.tension_note" :choices="choices" />
  <TensionStation v-else :drive="drive" :choices="choices" />
</template>
