<script setup lang="ts">
import { inject } from 'vue'

import type { Choices, DriveOut } from '../../api/client'
import { SPEED_TITLES, type SpeedAsk } from '../asks'
import AskStrip from '../AskStrip.vue'
import KeepSurvey from '../survey/KeepSurvey.vue'
import AdjustableSheave from './ask/AdjustableSheave.vue'
import MachineFeels from './ask/MachineFeels.vue'
import MakeWheel from './ask/MakeWheel.vue'
import OneTrial from './ask/OneTrial.vue'
import TargetSpeed from './ask/TargetSpeed.vue'
import WhatItMeans from './ask/WhatItMeans.vue'
import ConesPanel from './ConesPanel.vue'
import SpeedStation from './SpeedStation.vue'
import { speedDeskKey } from './useSpeedDesk'

/** Speed: its questions, one at a time. */
defineOptions({ inheritAttrs: false })
const { drive, choices, ask } = defineProps<{ drive: DriveOut; choices: Choices; ask: SpeedAsk }>()
const { asks, felt, cones, conesForm, made, madeForm, preview, makeWheel } = inject(speedDeskKey)!
</script>

<template>
  <AskStrip
    :base="`/drives/${drive.id}/speed`"
    :asks="asks"
    :titles="SPEED_TITLES"
    :ask="ask"
    :marks="drive.proposed ? { runs: 'Wheels are proposed' } : {}"
  />
  <SpeedStation v-if="ask === 'runs'" :drive="drive" :choices="choices" />
  <WhatItMeans v-else-if="ask === 'means'" :drive="drive" :choices="choices" />
  <TargetSpeed
    v-else-if="ask === 'target'"
    :drive="drive"
    :choices="choices"
    @preview="preview = $event"
    @make="makeWheel"
  />
  <AdjustableSheave v-else-if="ask === 'turns'" :drive="drive" :choices="choices" />
  <template v-else-if="ask === 'cones'">
    <ConesPanel v-model="conesForm" :found="cones" :choices="choices" />
    <KeepSurvey :drive="drive" usual="step cones taped" />
  </template>
  <MachineFeels v-else-if="ask === 'feels'" :drive="drive" :choices="choices" :felt="felt" />
  <MakeWheel v-else-if="ask === 'make'" v-model="madeForm" :choices="choices" :found="made" />
  <OneTrial v-else :drive="drive" :choices="choices" />
</template>
