<script setup lang="ts">
import { computed, inject, nextTick, ref, toRef, watch, watchEffect } from 'vue'
import { useRouter } from 'vue-router'

import type { Choices, DriveOut, Layout } from '../../api/client'
import { inSystem } from '../../settings'
import { useKeepSurvey } from '../../sheet/useKeepSurvey'
import { completedSurvey } from '../../sheet/form'
import { sheetKey } from '../../sheet/useSheet'
import { SIZE_ASKS, SIZE_TITLES, type SizeAsk } from '../asks'
import AskStrip from '../AskStrip.vue'
import StageChoice from '../StageChoice.vue'
import AsItStands from './ask/AsItStands.vue'
import OnShafts from './ask/OnShafts.vue'
import StagesAsFitted from './ask/StagesAsFitted.vue'
import SideBySide from './ask/SideBySide.vue'
import WhatWouldDo from './ask/WhatWouldDo.vue'
import WhyNot from './ask/WhyNot.vue'
import { completedSize, type SizeAsked, useSizeAsk } from './useSizeAsk'
import { sizeDeskKey } from './useSizeDesk'

/** Size on a drive: its questions, one at a time. */
defineOptions({ inheritAttrs: false })
const {
  drive,
  choices,
  ask,
  layout = null,
} = defineProps<{ drive: DriveOut; choices: Choices; ask: SizeAsk; layout?: Layout | null }>()
const desk = inject(sizeDeskKey)!
const state = inject(sheetKey)!
const router = useRouter()
const keeper = useKeepSurvey(() => drive, state)
const done = ref('')
const refusedFamily = ref('')
const base = toRef(() => `/drives/${drive.id}/size`)
const marks = computed(() =>
  desk.asked.value.beside.length ? { compare: `${desk.asked.value.beside.length} side by side` } : {},
)
const found = (key: string) => desk.candidates.value.find((c) => c.key === key)

/** The stages of a train that are chosen for as a pair of wheels is; none where the drive is no train. */
const train = computed(() => state.train.value)
const pairs = computed(() => (train.value?.stages ?? []).filter((s) => s.wheels.length === 2))
const stage = computed({
  get: () => desk.asked.value.size.stage,
  set: (number) => (desk.asked.value.size.stage = number),
})
watchEffect(() => {
  if (!state.sheet.value) return
  const known = train.value ? pairs.value.map((s) => s.number) : [1]
  if (known.length && !known.includes(stage.value)) stage.value = known[0]!
})

const told = ref<HTMLElement | null>(null)
watch(done, async (now) => {
  if (!now) return
  await nextTick()
  told.value?.scrollIntoView({ block: 'nearest' })
})

async function propose(key: string): Promise<void> {
  const one = found(key)
  if (!one?.survey) return
  done.value = refusedFamily.value = ''
  const why = `${one.name}: ${one.parts.map((p) => `${p.many} × ${p.name}`).join(', ')}`
  if (await keeper.propose(one.survey as typeof state.form.value.survey, why.slice(0, 390)))
    done.value = 'Proposed, with its parts: it stands in the log until it is fitted.'
}
/** The same question on the bench, to be turned over without touching the record. */
function toBench(): void {
  const from = desk.answer.value?.from_survey ?? {}
  const bench = useSizeAsk('bench')
  const copy = completedSize(JSON.parse(JSON.stringify(desk.asked.value)) as SizeAsked)
  copy.size.stage = 1
  for (const [key, said] of Object.entries(from)) {
    if (key === 'driven_class') copy.size.words.driven_class ||= said.us
    else if (!copy.size.quantities[key]?.text)
      copy.size.quantities[key] = { text: inSystem(said), unit: '', origin: null }
  }
  bench.value = copy
  void router.push('/bench/size')
}
function write(key: string): void {
  const one = found(key)
  if (!one?.survey) return
  done.value = ''
  if (stage.value === 1 && one.drive_family !== drive.family) {
    refusedFamily.value = `This drive is surveyed as ${drive.family}; that one is ${one.family}. Propose it, or change the family at Survey when it is fitted.`
    return
  }
  refusedFamily.value = ''
  state.form.value.survey = completedSurvey(drive.family, one.survey)
  const further = pairs.value.length
    ? ' Look at the stages beside it: a shaft that moved carries their wheels too.'
    : ''
  done.value = `In the survey, not kept yet: Survey keeps it.${further}`
}
</script>

<template>
  <AskStrip :base="base" :asks="SIZE_ASKS" :titles="SIZE_TITLES" :ask="ask" :marks="marks" />
  <p v-if="done" ref="told" class="done" role="status">✓ {{ done }}</p>
  <p v-if="refusedFamily" class="done ember" role="alert">{{ refusedFamily }}</p>
  <p v-if="keeper.problem.value" class="done ember" role="alert">Not kept: {{ keeper.problem.value.detail }}</p>
  <div v-if="train && ask !== 'stands'" class="stage">
    <StageChoice v-model="stage" :stages="pairs" />
    <p v-if="!pairs.length" class="small" role="status">
      Options are pairs of wheels, and this belt runs on more. Under As fitted its wheels are tried one by one; on the
      bench a pair is chosen freely.
    </p>
  </div>
  <StagesAsFitted v-if="ask === 'stands' && train" :drive="drive" :choices="choices" :layout="layout" />
  <AsItStands v-else-if="ask === 'stands'" :drive="drive" :choices="choices" />
  <template v-else-if="train && !pairs.length" />
  <WhatWouldDo
    v-else-if="ask === 'choose'"
    can-copy
    @copy="toBench"
    :choices="choices"
    @propose="propose"
    @write="write"
    @compare="router.push(`${base}/compare`)"
  />
  <SideBySide v-else-if="ask === 'compare'" />
  <WhyNot v-else-if="ask === 'why'" @propose="propose" @write="write" />
  <OnShafts v-else :choices="choices" />
</template>

<style scoped>
.done,
.stage {
  padding: 12px 18px 0;
}
</style>
