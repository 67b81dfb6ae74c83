<script setup lang="ts">
import type { Choices, DriveOut } from '../../api/client'
import AskStrip from '../AskStrip.vue'
import { INSPECT_ASKS, INSPECT_TITLES, type InspectAsk } from '../asks'
import PhotosPanel from './PhotosPanel.vue'
import RoundPanel from './RoundPanel.vue'
import WearPanel from './WearPanel.vue'
import WrongPanel from './WrongPanel.vue'

/** Inspect asks what is wrong, how worn, the round, and the photographs. */
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
  <RoundPanel v-else-if="ask === 'round'" />
  <PhotosPanel v-else-if="ask === 'photos'" :drive="drive" />
  <WrongPanel v-else :drive="drive" :choices="choices" />
</template>
