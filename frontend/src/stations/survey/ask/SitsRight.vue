<script setup lang="ts">
import { computed, inject, watchEffect } from 'vue'

import type { Choices } from '../../../api/client'
import { say } from '../../../settings'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import FigureValue from '../../../sheet/FigureValue.vue'
import MeasureField from '../../../sheet/MeasureField.vue'
import { moreFiguresKey, sheetKey } from '../../../sheet/useSheet'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import { findKey } from '../useFind'
import WordField from '../WordField.vue'

/** Does the belt sit right in its groove: by the tables, better by callipers, best by the ride itself. */
const { choices } = defineProps<{ choices: Choices }>()
const find = inject(findKey)!
const sheet = inject(sheetKey)!
find.answerFields()
const q = computed(() => find.form.value.quantities)
const w = computed(() => find.form.value.words)
// The drive's own section and wheel stand in until something else is said.
watchEffect(() => {
  const own = sheet.sheaves.value.choices?.section ?? ''
  if (!w.value.belt_section) w.value.belt_section = own
  if (!w.value.made_for) w.value.made_for = own
  const wheel = sheet.sheaves.value.quantities?.driver_diameter
  if (wheel?.text && !q.value.wheel_diameter?.text && sheet.sheaves.value.choices?.driver_basis === 'outside')
    q.value.wheel_diameter = { ...wheel }
})
const check = computed(() => find.checked.answer.value?.check)
const ride = computed(() => check.value?.figures[0])
const more = inject(moreFiguresKey)!
watchEffect(() => {
  more.value = Object.fromEntries((check.value?.figures ?? []).map((f) => [f.key, f]))
})
const KINDS = [
  { value: 'standard', label: 'standard' },
  { value: 'deep', label: 'deep' },
  { value: 'combination', label: 'combination A and B' },
]
const WAYS = [
  { value: 'proud', label: 'proud of the rim' },
  { value: 'sunk', label: 'sunk below it' },
]
const TOOLS = [
  { value: 'caliper', label: 'callipers' },
  { value: 'rule', label: 'a steel rule' },
  { value: 'tape', label: 'a tape' },
]
const SIGNS = [
  { value: 'two systems', label: 'Classical and wedge belts side by side' },
  { value: 'two sections', label: 'Two sections' },
  { value: 'two numbers', label: 'Two part numbers or makes' },
  { value: 'new and used', label: 'New beside used' },
  { value: 'singles for joined', label: 'Singles in place of a joined belt' },
]
</script>

<template>
  <div class="station" data-panel>
    <div class="slip" aria-live="polite">
      <VerdictNotes v-if="check" :verdicts="check.verdicts" />
      <p v-else>Say which belt and which groove: then it is drawn here in section.</p>
    </div>
    <CautionStrip :cautions="choices.cautions.survey" state="Machine isolated." />
    <fieldset>
      <legend>What is put together</legend>
      <WordField v-model="w.belt_section!" name="belt_section" label="Belt on it now" :options="choices.sections" />
      <WordField v-model="w.made_for!" name="made_for" label="Groove made for" :options="choices.sections" />
      <WordField v-model="w.groove_kind!" name="groove_kind" label="Groove" :options="KINDS" />
      <MeasureField v-model="q.wheel_diameter!" name="wheel_diameter" label="Wheel, outside" />
    </fieldset>
    <fieldset>
      <legend>
        Measured
        <span class="soft small">else the tables stand in</span>
      </legend>
      <WordField v-model="w.tool!" name="tool" label="Taken with" wide :options="TOOLS" />
      <MeasureField v-model="q.top_width!" name="top_width" label="1 Belt top width" />
      <MeasureField v-model="q.groove_width!" name="groove_width" label="2 Groove top width" />
      <MeasureField v-model="q.ride!" name="ride" label="3 Back off the rim" hint="slack belt" />
      <WordField v-model="w.ride_way!" name="ride_way" label="Which way" :options="WAYS" />
      <MeasureField v-model="q.thickness!" name="thickness" label="Belt thickness" />
      <MeasureField v-model="q.groove_depth!" name="groove_depth" label="Groove depth" />
      <MeasureField v-model="q.belt_angle!" name="belt_angle" label="Belt angle" />
      <MeasureField v-model="q.groove_angle!" name="groove_angle" label="Groove angle" />
    </fieldset>
    <FigureValue v-if="ride" :figure="ride" label="Back above the rim, by these sizes" doubt />
    <div v-if="check?.schools.length" class="small schools">
      <p v-for="s in check.schools" :key="s.name">
        <b>{{ s.name }}:</b>
        {{ s.low_us }} to {{ s.high_us }} ({{ s.low_si }} to {{ s.high_si }}): {{ s.verdict.headline }}
        <span class="soft">{{ s.verdict.sureness }}; {{ s.source }}</span>
      </p>
    </div>
    <fieldset>
      <legend>The set, as it hangs there</legend>
      <el-checkbox-group v-model="find.form.value.set_signs" class="signs">
        <el-checkbox v-for="sign in SIGNS" :key="sign.value" :value="sign.value">{{ sign.label }}</el-checkbox>
      </el-checkbox-group>
    </fieldset>
    <div class="slip" aria-live="polite">
      <VerdictNotes :verdicts="find.checked.answer.value?.set_verdicts ?? []" />
    </div>
    <p class="small soft">{{ say('A ridge felt in the groove, machine locked out: replace the sheave.') }}</p>
  </div>
</template>

<style src="./ask.css" scoped></style>
<style scoped>
.slip,
.schools {
  display: grid;
  gap: 8px;
}
.signs {
  grid-column: 1 / -1;
  display: grid;
}
.signs :deep(.el-checkbox) {
  min-height: 40px;
  height: auto;
  white-space: normal;
  margin-right: 0;
}
</style>
