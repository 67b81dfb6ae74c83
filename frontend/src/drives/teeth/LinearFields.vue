<script setup lang="ts">
import type { Toothed } from '../../api/client'
import { inSystem } from '../../settings'
import WordField from '../../stations/survey/WordField.vue'
import MeasureField from '../../sheet/MeasureField.vue'
import VerdictNotes from '../../sheet/VerdictNotes.vue'
import type { ToothedForm } from '../../sheet/form'

/** An open-ended belt clamped to a carriage: what its free span should hum at, by the machine's own manual. */
const linear = defineModel<ToothedForm['linear']>({ required: true })
const { found } = defineProps<{ found: Toothed['linear'] }>()
</script>

<template>
  <fieldset>
    <legend>Clamped to a carriage</legend>
    <MeasureField
      v-model="linear.linear_span"
      name="linear_span"
      field="point_tape"
      label="Free span"
      hint="clamp to wheel"
    />
    <MeasureField v-model="linear.linear_mass" name="linear_mass" label="Belt's mass" hint="manual, at this width" />
    <MeasureField
      v-model="linear.linear_target"
      name="linear_target"
      field="belt_tension"
      label="Tension it should have"
      hint="manual"
    />
    <WordField v-model="linear.linear_within" name="linear_within" label="…within, percent" placeholder="20" />
    <MeasureField
      v-model="linear.linear_pluck"
      name="linear_pluck"
      field="frequency"
      label="Plucked, it hums at"
      hint="meter or phone"
    />
    <p v-if="found?.target" class="aside">
      <span class="small soft">Here it should hum at</span>
      <b>{{ found.target }}</b>
      <span class="small soft">{{ found.band }}</span>
      <template v-if="found.tension">
        <span class="small soft">plucked, it holds</span>
        <b>{{ inSystem(found.tension) }}</b>
      </template>
    </p>
  </fieldset>
  <VerdictNotes v-if="found" :verdicts="found.verdicts" />
</template>

<style src="../../stations/survey/ask/ask.css" scoped></style>
<style scoped>
.aside {
  margin: 0;
  display: grid;
  align-content: start;
  gap: 1px;
}
.aside b {
  font-size: 22px;
  font-stretch: 76%;
}
</style>
