<script setup lang="ts">
import type { Choices, DriveOut } from '../../api/client'
import AskStrip from '../AskStrip.vue'
import { INSPECT_ASKS, INSPECT_TITLES, type InspectAsk } from '../asks'
import WearPanel from './WearPanel.vue'
import WrongPanel from './WrongPanel.vue'

/** Inspect asks what is wrong, and how worn. */
defineOptions({ inheritAttrs: false })
const { drive, choices, ask } = defineProps<{ drive: DriveOut; choices: Choices; ask: string }>()
</script>

<template>
  <AskStrip
    :base="`/drives/${drive.id}/inspect`"
    :asks="INSPECT_ASKS"
    :titles="INSPECT_TITLES"
    :ask="ask as InspectAsk"
  />
  <WearPanel v-if="ask === 'wear'" :drive="drive" :choices="choices" />
  <WrongPanel v-else :drive="drive" :choices="choices" />
</template>
