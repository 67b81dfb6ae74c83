<script setup lang="ts">
import { provide, ref, toRef } from 'vue'

import type { Choices, DriveOut, Sheet } from '../api/client'
import AlignBoard from '../stations/align/AlignBoard.vue'
import AlignPanel from '../stations/align/AlignPanel.vue'
import { provideAlign, useAlign } from '../stations/align/useAlign'
import { answersKey, focusKey, moreFiguresKey, sheetKey, useSheet, workingKey } from '../sheet/useSheet'
import WorkingSlip from '../sheet/WorkingSlip.vue'

/** The Align station on a drive that is on no record. */
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const state = useSheet(
  toRef(() => drive),
  toRef(() => choices),
)
const working = ref<string | null>(null)
const more = ref<Sheet['figures']>({})
provide(sheetKey, state)
provide(answersKey, {
  note: (name) => state.sheet.value?.notes[name],
  problem: (name) => state.problems.value.get(name),
})
provide(focusKey, ref(''))
provide(workingKey, (key) => (working.value = key))
provide(moreFiguresKey, more)
provideAlign(
  useAlign(
    state,
    () => choices,
    () => drive,
  ),
)
</script>

<template>
  <div class="work">
    <section class="board" aria-label="Drawing"><AlignBoard /></section>
    <section class="panel" data-panel aria-label="Align">
      <AlignPanel :drive="drive" :choices="choices" practice />
    </section>
    <WorkingSlip v-model="working" :figures="{ ...state.sheet.value?.figures, ...more }" />
  </div>
</template>

<style src="../sheet/work.css" scoped></style>
<style src="../sheet/board.css" scoped></style>
