<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, inject, provide, ref } from 'vue'

import { api, type Choices, type DriveOut, unwrap } from '../../api/client'
import { inSystem, say } from '../../settings'
import CautionStrip from '../../sheet/CautionStrip.vue'
import type { FlatForm } from '../../sheet/form'
import { trimmed } from '../../sheet/form'
import LayoutDrawing from '../../sheet/LayoutDrawing.vue'
import MeasureField from '../../sheet/MeasureField.vue'
import { useAnswer } from '../../sheet/useAnswer'
import { answersKey, focusKey, sheetKey } from '../../sheet/useSheet'
import VerdictNotes from '../../sheet/VerdictNotes.vue'
import DriverFields from '../../stations/survey/DriverFields.vue'
import FamilySlip from '../../stations/survey/FamilySlip.vue'
import KeepSurvey from '../../stations/survey/KeepSurvey.vue'
import MoreWheels from '../../stations/survey/MoreWheels.vue'
import WordField from '../../stations/survey/WordField.vue'

/** Survey of a flat-belt drive: pulleys, crown and face, how the belt lies; lengths and speeds with its thickness. */
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const state = inject(sheetKey)!
const form = computed(() => state.first.value.fitted as FlatForm)
const q = computed(() => form.value.quantities)
const { answer: found } = useAnswer(form, (signal) =>
  unwrap(api.POST('/api/calc/flat', { body: trimmed({ flat: form.value }), signal })),
)
const { data: lists } = useQuery({
  queryKey: ['flat lists'],
  queryFn: () => unwrap(api.GET('/api/calc/flat-lists')),
  staleTime: Infinity,
})
const kinds = computed(() => [
  { value: '', label: 'not known' },
  ...(lists.value?.belts ?? []).map((b) => ({ value: b.name, label: `${b.name}, ${inSystem(b.thickness)}` })),
])
const problems = computed(() => new Map(found.value?.problems.map((p) => [p.field, p])))
provide(answersKey, { note: (name) => found.value?.notes[name], problem: (name) => problems.value.get(name) })
provide(focusKey, ref(''))
const LAYS = [
  { value: 'open', label: 'open' },
  { value: 'crossed', label: 'crossed' },
  { value: 'quarter-turn', label: 'quarter turn: shafts square' },
]
const WAYS = [
  { value: 'clockwise', label: 'clockwise' },
  { value: 'counter-clockwise', label: 'counter-clockwise' },
]
const SURFACES = [
  { value: '', label: 'not looked at yet' },
  { value: 'crowned', label: 'crowned' },
  { value: 'plain', label: 'plain' },
]
</script>

<template>
  <div class="work">
    <section class="board" aria-label="Drawing">
      <LayoutDrawing :layout="found?.layout ?? null" :focus="-1">
        <p>Tape both pulleys, the centres and the belt's thickness: the drawing appears here, to scale.</p>
      </LayoutDrawing>
    </section>
    <section class="panel" data-panel aria-label="Survey">
      <div class="station">
        <div class="slip" aria-live="polite">
          <VerdictNotes v-if="found" :verdicts="found.verdicts" fold />
        </div>
        <CautionStrip :cautions="choices.cautions.survey" state="Machine isolated." />
        <fieldset>
          <legend>The belt</legend>
          <WordField v-model="form.belt" name="belt" label="Kind" :options="kinds" wide />
          <MeasureField v-model="q.flat_width!" name="flat_width" field="belt_width" label="Width" />
          <MeasureField v-model="q.flat_thickness!" name="flat_thickness" label="Thickness" hint="if it differs" />
          <WordField v-model="form.lay" name="lay" label="It lies" :options="LAYS" />
          <WordField v-model="form.rotation" name="rotation" label="Driver turns" :options="WAYS" />
          <MeasureField v-model="q.driver_speed!" name="driver_speed" label="Driver speed" />
          <MeasureField v-model="q.centre_distance!" name="centre_distance" label="Centres" hint="shaft to shaft" />
        </fieldset>
        <fieldset v-for="side in ['driver', 'driven'] as const" :key="side">
          <legend>{{ say(side === 'driver' ? 'Driver pulley' : 'Driven pulley') }}</legend>
          <MeasureField
            v-model="q[`${side}_diameter`]!"
            :name="`${side}_diameter`"
            label="Diameter"
            hint="at the middle"
          />
          <MeasureField v-model="q[`${side}_face`]!" :name="`${side}_face`" field="belt_width" label="Face width" />
          <WordField v-model="form[`${side}_surface`]" :name="`${side}_surface`" label="Face" :options="SURFACES" />
          <MeasureField
            v-if="form[`${side}_surface`] === 'crowned'"
            v-model="q[`${side}_crown`]!"
            :name="`${side}_crown`"
            field="crown"
            label="Crown"
            :hint="
              found?.crowns[side === 'driver' ? 0 : 1]
                ? `ISO 100: ${inSystem(found.crowns[side === 'driver' ? 0 : 1]!)}`
                : ''
            "
          />
        </fieldset>
        <dl v-if="found?.inside" class="figures">
          <dt>Tape round both</dt>
          <dd>{{ inSystem(found.inside) }}</dd>
          <dt>Laid flat</dt>
          <dd>{{ inSystem(found.middle!) }}</dd>
          <template v-if="found.driven_speed">
            <dt>Driven speed, no slip</dt>
            <dd>{{ inSystem(found.driven_speed) }}</dd>
          </template>
        </dl>
      </div>
      <MoreWheels :drive="drive" />
      <DriverFields :speed="false" />
      <FamilySlip :drive="drive" />
      <KeepSurvey :drive="drive" :usual="drive.configuration_id ? 'surveyed again' : 'first survey'" />
    </section>
  </div>
</template>

<style src="../../stations/survey/ask/ask.css" scoped></style>
<style src="../../sheet/work.css" scoped></style>
<style scoped>
.slip {
  display: grid;
  gap: 8px;
}
.figures {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 14px;
  margin: 0;
  border-top: 1px solid var(--hair);
  padding-top: 10px;
}
.figures dd {
  margin: 0;
  font-weight: 640;
}
</style>
