<script setup lang="ts">
import { computed, inject, provide, watch } from 'vue'

import { api, type Choices, type DriveOut, unwrap } from '../../../api/client'
import { inSystem } from '../../../settings'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import { trimmed } from '../../../sheet/form'
import MeasureField from '../../../sheet/MeasureField.vue'
import { useAnswer } from '../../../sheet/useAnswer'
import { answersKey, sheetKey } from '../../../sheet/useSheet'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import KeepSurvey from '../KeepSurvey.vue'
import WordField from '../WordField.vue'

/** Link belting: cut to length from the roll, the right way round; under live rollers or in place of a V-belt. */
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const state = inject(sheetKey)!
const form = computed(() => state.sheaves.value.link)
/** A live-roller conveyor is made for link belting; in place of a V-belt it stands in, where the machine allows that. */
const asked = computed(() => ({
  link: form.value,
  machine_is: state.sheaves.value.choices.section.startsWith('link') ? [] : state.form.value.machine_is,
}))
const { answer: found } = useAnswer(asked, (signal) =>
  unwrap(api.POST('/api/calc/link', { body: trimmed(asked.value), signal })),
)
const problems = computed(() => new Map(found.value?.problems.map((p) => [p.field, p])))
const tabs = defineModel<string | null>('tabs', { required: true })
watch(found, (now) => (tabs.value = now?.tabs ?? null), { immediate: true })
provide(answersKey, { note: (name) => found.value?.notes[name], problem: (name) => problems.value.get(name) })
const options = (...pairs: [string, string][]) => [
  { value: '', label: 'not looked at yet' },
  ...pairs.map(([value, label]) => ({ value, label })),
]
</script>

<template>
  <div class="station">
    <VerdictNotes v-if="found" :verdicts="found.verdicts" />
    <CautionStrip :cautions="choices.cautions.survey" state="Machine isolated." />
    <fieldset>
      <legend>Cut to length</legend>
      <MeasureField
        v-model="form.link_tape"
        name="link_tape"
        field="outside_length"
        label="Round the wheels"
        hint="pulled hand-tight"
      />
      <WordField
        v-model="form.take_up"
        name="take_up"
        label="Take-up, while taping"
        :options="options(['at its least', 'at its least'], ['part way out', 'part way out'])"
      />
      <MeasureField
        v-model="form.link_span"
        name="link_span"
        field="pitch_span"
        label="Over several links"
        hint="a dozen"
      />
      <WordField v-model="form.link_count" name="link_count" label="…links between" placeholder="12" />
      <WordField
        v-model="form.use"
        name="use"
        label="Where it runs"
        wide
        :options="[
          { value: '', label: 'not said yet' },
          { value: 'in place of a V-belt', label: 'in place of a V-belt' },
          { value: 'roller conveyor', label: 'under the rollers of a conveyor' },
        ]"
      />
    </fieldset>
    <p v-if="found?.links" class="sum">
      <span
        ><b>{{ found.links }}</b> links</span
      >
      <span class="soft"
        >{{ inSystem(found.length!) }},
        <template v-if="found.take_out">{{ found.take_out }} taken out of the hand-tight belt; </template>a link is
        {{ inSystem(found.pitch!) }}</span
      >
    </p>
    <fieldset>
      <legend>How it runs</legend>
      <WordField
        v-model="form.tabs"
        name="tabs"
        label="Its tabs"
        :options="options(['trailing', 'trail the travel'], ['leading', 'lead the travel'])"
      />
      <WordField
        v-model="form.pulled"
        name="pulled"
        label="Where it carries load it is"
        :options="options(['pulled', 'pulled to the driver'], ['pushed', 'pushed away'])"
      />
    </fieldset>
  </div>
  <KeepSurvey :drive="drive" :usual="drive.configuration_id ? 'link belting cut' : 'first survey'" />
</template>

<style src="./ask.css" scoped></style>
<style scoped>
.sum {
  margin: 0;
  display: grid;
  gap: 2px;
}
.sum b {
  font-size: 26px;
  font-stretch: 76%;
}
</style>
