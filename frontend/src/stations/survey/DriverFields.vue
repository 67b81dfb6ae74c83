<script setup lang="ts">
import { computed, inject, provide } from 'vue'

import MeasureField from '../../sheet/MeasureField.vue'
import { useChoices } from '../../api/queries'
import { answersKey, MEANT, sheetKey } from '../../sheet/useSheet'
import VerdictSlip from '../../sheet/VerdictSlip.vue'
import WordField from './WordField.vue'

/** What drives a toothed, chain or flat drive: the sheet's own fields, answered by the sheet. */
const { speed = true } = defineProps<{ speed?: boolean }>()
const state = inject(sheetKey)!
const driver = computed(() => state.form.value.survey.driver)
const machine = computed(() => state.form.value.survey.machine)
const stage = state.first
const { data: choices } = useChoices()
const classes = computed(() => choices.value?.driven_classes ?? [])
provide(answersKey, {
  note: (name) => state.sheet.value?.notes[name],
  problem: (name) => state.problems.value.get(name),
})
</script>

<template>
  <div class="driver">
    <VerdictSlip :topics="[]" :flags="MEANT" />
    <fieldset>
      <legend>What drives it</legend>
      <MeasureField v-if="speed" v-model="driver.driver_speed" name="driver_speed" label="Driver speed" hint="plate" />
      <MeasureField v-model="driver.driver_power" name="driver_power" label="Driver power" hint="plate" />
      <MeasureField v-model="machine.hours_per_day" name="hours_per_day" label="Hours a day" />
      <WordField v-model="machine.driven_class" name="driven_class" label="Kind of machine" :options="classes" wide />
      <WordField v-model="stage.held_by" name="held_by" label="Held tight by" :options="choices?.held_by ?? []" />
      <WordField v-model="stage.idler" name="idler" label="Idler" :options="choices?.idlers ?? []" />
      <WordField
        v-model="machine.surroundings"
        name="surroundings"
        label="Surroundings"
        :options="choices?.surroundings ?? []"
      />
      <WordField v-model="machine.starts" name="starts" label="Starts" :options="choices?.starts ?? []" />
    </fieldset>
  </div>
</template>

<style src="./ask/ask.css" scoped></style>
<style scoped>
.driver {
  padding: 0 18px 12px;
}
</style>
