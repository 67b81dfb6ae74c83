<script setup lang="ts">
import { computed, inject } from 'vue'

import type { DriveOut, Sheet } from '../api/client'
import { faceOf } from '../drives/registry'
import { surveyDeskKey } from '../stations/survey/useSurveyDesk'
import DriveDrawing from './DriveDrawing.vue'
import { looseKeepers } from './layoutEdit'
import LayoutDrawing from './LayoutDrawing.vue'
import TeachDrawing from './TeachDrawing.vue'
import { layoutKey } from './useLayout'
import { focusKey, sheetKey } from './useSheet'

/** The drive to scale, whatever it is: two wheels with the station's dimensions over them, or many as they stand. */
const {
  drive,
  station,
  ask,
  tried = null,
} = defineProps<{ drive: DriveOut; station: string; ask: string; tried?: Sheet | null }>()
const state = inject(sheetKey)!
const focus = inject(focusKey)!
const { steps } = inject(surveyDeskKey)!
const { answer: layout, held, wheelInHand, drop, shown } = inject(layoutKey)!

const path = computed(() => state.form.value.survey.layout)
/** The wheels are what is asked about, and may be moved. */
const asked = computed(() => station === 'survey' && ask === 'wheels')
const tapeInHand = computed<[number, number] | null>(() => {
  const tape = path.value.tapes[Number(/^tape_(\d+)$/.exec(focus.value)?.[1]) - 1]
  return tape ? [tape.a, tape.b] : null
})
/** At Tension the stage's own figures go before the sheet's: the drawing shows what the method there asks for. */
const own = computed(() => (station === 'tension' ? (state.sheet.value?.tight?.figures ?? {}) : {}))
const figures = computed(() => ({ ...(tried?.figures ?? state.sheet.value?.figures), ...own.value }))
const machine = computed(() => (drive.machine_kind && drive.machine_kind.length <= 20 ? drive.machine_kind : 'driven'))
/** A chain is not pushed: its pulls are shown in place of the span. */
const dimensions = computed(() => (station === 'tension' && drive.kind.runs === 'chain' ? 'size' : station))
const method = computed(() => state.sheet.value?.tight?.method ?? 'gauge')
/** On many wheels: the belt and the free run that is read. */
const probe = computed(() => {
  const t = state.sheet.value?.tight
  if (station !== 'tension' || !t) return null
  return { belt: t.number - 1, run: Math.max(0, t.spans.indexOf(t.span)), pushed: pushed.value }
})
const pushed = computed(() => station === 'tension' && ['gauge', 'scale'].includes(method.value))
</script>

<template>
  <LayoutDrawing
    v-if="shown"
    :layout="layout"
    :focus="wheelInHand"
    :tape="asked ? tapeInHand : null"
    :drag="asked && path.placed_by === 'drag'"
    :loose="asked ? looseKeepers(path) : []"
    :held="held"
    :findings="drive.findings"
    :train="station === 'size' || station === 'tension' ? state.train.value : null"
    :probe="probe"
    @hold="held = $event"
    @drop="drop"
    @pick="wheelInHand = $event"
  >
    <p class="teach">Begin with the wheel that drives. The drawing appears as you measure.</p>
  </LayoutDrawing>
  <DriveDrawing
    v-else
    :drawing="tried?.drawing ?? state.lastDrawn.value"
    :figures="figures"
    :station="dimensions"
    :focus="focus"
    :steps="station === 'survey' ? steps : []"
    :machine="machine"
    :pushed="pushed"
    :findings="drive.findings"
    :dimmed="state.stale.value && !state.sheet.value"
  >
    <p v-if="state.waits.value" class="teach" role="status">{{ state.waits.value }}</p>
    <TeachDrawing v-else-if="faceOf(drive.kind).survey === null" :steps="steps" />
    <p v-else class="teach">Survey it first: the drawing appears as you measure.</p>
  </DriveDrawing>
</template>
