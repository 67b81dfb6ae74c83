<script setup lang="ts">
import { computed } from 'vue'

import type { Choices } from '../../../api/client'
import { say } from '../../../settings'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import MeasureField from '../../../sheet/MeasureField.vue'
import { useAnswers } from '../../../sheet/useAnswers'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import WordField from '../../survey/WordField.vue'
import type { MadeAnswer } from '../useMade'
import type { Made } from '../useSpeedAsk'

/** A sheave to turn down, machine or cast: finished sizes, the drawing to take along, and what to check on it. */
const form = defineModel<Made>({ required: true })
const { choices, found } = defineProps<{ choices: Choices; found: MadeAnswer | null }>()
useAnswers(computed(() => found))
const materials = computed(() => Object.entries(found?.materials ?? {}).map(([value, label]) => ({ value, label })))
const BASIS = [
  { value: 'outside', label: 'over the rim' },
  { value: 'datum', label: "the belt's line (datum)" },
]
</script>

<template>
  <div class="station">
    <div aria-live="polite" class="stack">
      <VerdictNotes v-if="found" :verdicts="found.verdicts" />
    </div>
    <fieldset>
      <legend>{{ say('The sheave to make') }}</legend>
      <WordField v-model="form.section" name="made_section" label="Section" :options="choices.sections" wide />
      <MeasureField v-model="form.diameter" name="made_diameter" field="train_wheel" label="Diameter" />
      <WordField v-model="form.basis" name="made_basis" label="it is" :options="BASIS" />
      <WordField v-model="form.grooves" name="made_grooves" label="Grooves" />
      <MeasureField v-model="form.bore" name="made_bore" field="bore" label="Bore" />
      <WordField v-if="materials.length" v-model="form.material" name="made_material" label="Of" :options="materials" />
      <MeasureField v-model="form.speed" name="made_speed" field="train_speed" label="Running speed" />
    </fieldset>
    <table v-if="found?.sizes.length" class="why">
      <caption>
        Work to these
      </caption>
      <tbody>
        <tr v-for="s in found.sizes" :key="s.name">
          <th scope="row">{{ s.name }}</th>
          <td>{{ s.value }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="found?.query" class="row">
      <a class="file" :href="`/api/calc/speed/wheel.svg?${found.query}`" download>Drawing 1:1 (SVG)</a>
      <a class="file" :href="`/api/calc/speed/wheel.dxf?${found.query}`" download>For the machine (DXF)</a>
    </p>
    <CautionStrip :cautions="choices.cautions.wheel" state="Before its first run." />
    <details v-if="found" open>
      <summary>Before it turns</summary>
      <ul>
        <li v-for="c in found.checks" :key="c">{{ c }}</li>
      </ul>
    </details>
  </div>
</template>

<style src="../../survey/ask/ask.css" scoped></style>
<style src="../speed.css" scoped></style>
<style scoped>
.file {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  font-weight: 600;
}
summary {
  cursor: pointer;
  font-weight: 600;
  min-height: 36px;
}
ul {
  margin: 0;
  padding-left: 18px;
  display: grid;
  gap: 6px;
  font-size: 14.5px;
}
</style>
