<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { inject } from 'vue'

import GrooveDrawing from '../../sheet/GrooveDrawing.vue'
import LinkDrawing from '../../sheet/LinkDrawing.vue'
import SectionDrawing from '../../sheet/SectionDrawing.vue'
import { focusKey } from '../../sheet/useSheet'
import CandidateLadder from './ask/CandidateLadder.vue'
import { surveyDeskKey } from './useSurveyDesk'

/** Survey's board: the belt in section with its candidates, the belt in its groove, link belting; else the drive. */
defineOptions({ inheritAttrs: false })
defineProps<{ ask: string }>()
const { find, linkTabs, choose } = inject(surveyDeskKey)!
const focus = inject(focusKey)!
const narrow = useMediaQuery('(max-width: 760px)')
</script>

<template>
  <SectionDrawing
    v-if="ask === 'belt'"
    :identified="find.identified.answer.value"
    :form="find.form.value"
    :focus="focus"
  />
  <GrooveDrawing
    v-else-if="ask === 'groove'"
    :checked="find.checked.answer.value"
    :belt="find.form.value.words.belt_section ?? ''"
    :made-for="find.form.value.words.made_for ?? ''"
    :typed="(key) => find.form.value.quantities[key as 'ride']?.text ?? ''"
  >
    <p class="teach">Say which belt and which groove: they are drawn here in section, to scale.</p>
  </GrooveDrawing>
  <LinkDrawing v-else-if="ask === 'link'" :tabs="linkTabs" />
  <slot v-else />
  <div v-if="ask === 'belt' && !narrow" class="under">
    <CandidateLadder
      v-if="find.identified.answer.value && find.anything.value"
      :identified="find.identified.answer.value"
      :chosen="find.chosen.value"
      @choose="choose"
    />
    <p v-else class="soft">
      Type any one measurement: the candidates stand here, likeliest first, and each further one tells them apart.
    </p>
  </div>
</template>

<style scoped>
.under {
  border-top: 1px solid var(--hair);
  padding: 10px 18px 14px;
  overflow-y: auto;
  max-height: min(46vh, 400px);
}
</style>
