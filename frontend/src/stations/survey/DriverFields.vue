<script setup lang="ts">
import { computed, inject, provide } from 'vue'

import MeasureField from '../../sheet/MeasureField.vue'
import { answersKey, sheetKey } from '../../sheet/useSheet'

/** What drives a toothed, chain or flat drive: the sheet's own fields, answered by the sheet. */
const { speed = true } = defineProps<{ speed?: boolean }>()
const state = inject(sheetKey)!
const q = computed(() => state.form.value.survey.quantities!)
provide(answersKey, {
  note: (name) => state.sheet.value?.notes[name],
  problem: (name) => state.problems.value.get(name),
})
</script>

<template>
  <div class="driver">
    <fieldset>
      <legend>What drives it</legend>
      <MeasureField v-if="speed" v-model="q.driver_speed!" name="driver_speed" label="Driver speed" hint="plate" />
      <MeasureField v-model="q.driver_power!" name="driver_power" label="Driver power" hint="plate" />
    </fieldset>
  </div>
</template>

<style src="./ask/ask.css" scoped></style>
<style scoped>
.driver {
  padding: 0 18px 12px;
}
</style>
