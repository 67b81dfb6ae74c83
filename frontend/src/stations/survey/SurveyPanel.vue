<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { ElMessageBox } from 'element-plus'
import { computed, inject } from 'vue'

import type { Choices, DriveOut, Layout } from '../../api/client'
import { useFound } from '../../api/queries'
import { type Ask, ASK_TITLES, ASKS } from '../asks'
import AskStrip from '../AskStrip.vue'
import AtTheCounter from './ask/AtTheCounter.vue'
import GetHome from './ask/GetHome.vue'
import LinkBelt from './ask/LinkBelt.vue'
import ManyWheels from './ask/ManyWheels.vue'
import NoBelt from './ask/NoBelt.vue'
import PartNumber from './ask/PartNumber.vue'
import SitsRight from './ask/SitsRight.vue'
import WhichBelt from './ask/WhichBelt.vue'
import SurveyStation from './SurveyStation.vue'
import { layoutKey } from '../../sheet/useLayout'
import { surveyDeskKey } from './useSurveyDesk'

/** Survey beside the drawing: its questions, one at a time. */
const { drive, choices, ask, layout, recordOnly } = defineProps<{
  drive: DriveOut
  choices: Choices
  ask: Ask
  layout: Layout | null
  /** Its survey on two wheels is a page of its own: here it is asked about many only. */
  recordOnly?: boolean
}>()
defineOptions({ inheritAttrs: false })
const { find, linkTabs, choose } = inject(surveyDeskKey)!
const { wheelInHand } = inject(layoutKey)!
const { data: found } = useFound(() => drive.id)
const narrow = useMediaQuery('(max-width: 760px)')
const marks = computed(() => ({
  ...(found.value?.fixes.length ? { home: 'A get-home fix is on' } : {}),
  ...(found.value?.slip ? { counter: 'A slip is kept' } : {}),
}))
async function clearFind(): Promise<void> {
  const sure = await ElMessageBox.confirm('What was measured of this belt is cleared.', 'Start over?', {
    confirmButtonText: 'Start over',
    cancelButtonText: 'Keep it',
  }).catch(() => null)
  if (sure) find.clear()
}
</script>

<template>
  <ManyWheels v-if="recordOnly" :drive="drive" :choices="choices" :layout="layout" @focus="wheelInHand = $event" />
  <template v-else>
    <AskStrip :base="`/drives/${drive.id}/survey`" :asks="ASKS" :titles="ASK_TITLES" :ask="ask" :marks="marks" />
    <SurveyStation v-if="ask === 'drive'" :drive="drive" :choices="choices" />
    <ManyWheels
      v-else-if="ask === 'wheels'"
      :drive="drive"
      :choices="choices"
      :layout="layout"
      @focus="wheelInHand = $event"
    />
    <WhichBelt v-else-if="ask === 'belt'" :choices="choices" :ladder="narrow" @choose="choose">
      <template #part-number><PartNumber :drive="drive" @choose="choose" /></template>
      <p v-if="find.anything.value" class="row">
        <el-button @click="clearFind">Start over with another belt</el-button>
      </p>
    </WhichBelt>
    <NoBelt v-else-if="ask === 'length'" :choices="choices" @choose="choose" />
    <SitsRight v-else-if="ask === 'groove'" :choices="choices" />
    <LinkBelt v-else-if="ask === 'link'" v-model:tabs="linkTabs" :drive="drive" :choices="choices" />
    <GetHome v-else-if="ask === 'home'" :drive="drive" :choices="choices" />
    <AtTheCounter v-else :drive="drive" :choices="choices" />
  </template>
</template>
