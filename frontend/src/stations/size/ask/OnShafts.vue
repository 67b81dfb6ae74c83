<script setup lang="ts">
import { computed, inject, watchEffect } from 'vue'

import { api, type Choices, unwrap } from '../../../api/client'
import { say } from '../../../settings'
import FigureValue from '../../../sheet/FigureValue.vue'
import { trimmed } from '../../../sheet/form'
import MeasureField from '../../../sheet/MeasureField.vue'
import { useAnswer } from '../../../sheet/useAnswer'
import { useAnswers } from '../../../sheet/useAnswers'
import { moreFiguresKey, sheetKey } from '../../../sheet/useSheet'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import WordField from '../../survey/WordField.vue'
import { sizeDeskKey, useSizeChoices } from '../useSizeDesk'

/** What the pull does to one machine's shaft, bearings and motor. */
const { choices } = defineProps<{ choices: Choices }>()
const desk = inject(sizeDeskKey)!
const state = inject(sheetKey)!
const { data: sizes } = useSizeChoices()
const q = computed(() => desk.asked.value.shaft.quantities)
const w = computed(() => desk.asked.value.shaft.words)
const body = computed(() =>
  trimmed({ sheet: state.form.value, stage: desk.asked.value.size.stage, ...desk.asked.value.shaft }),
)
const { answer } = useAnswer(body, (signal) => unwrap(api.POST('/api/calc/size/shaft', { body: body.value, signal })))
useAnswers(answer)
const more = inject(moreFiguresKey, null)
watchEffect(() => {
  if (more && answer.value) more.value = answer.value.figures
})
/** Of a train, the stage that is asked about: its wheels by name, and only the driver's own shaft is a motor's. */
const stage = computed(() => state.train.value?.stages.find((s) => s.number === desk.asked.value.size.stage))
const onMotor = computed(() => !stage.value || stage.value.first)
const sides = computed(() => {
  const names = stage.value?.wheels.map((w) => w.name) ?? ['the driver', 'the driven machine']
  return ['driver', 'driven'].map((value, i) => ({ value, label: names[i] ?? value }))
})
const BEARINGS = [
  { value: 'ball', label: 'ball bearings' },
  { value: 'roller', label: 'roller bearings' },
  { value: 'bushing', label: 'plain bushings' },
]
const YES = [
  { value: '', label: 'no' },
  { value: 'yes', label: 'yes' },
]
const frames = computed(() => [
  { value: '', label: 'not known' },
  ...(sizes.value?.frames ?? []).map((f) => ({ value: f, label: f })),
])
const bar = (life: number) => `${Math.min(100, (100 * life) / 1.4)}%`
</script>

<template>
  <div class="station">
    <fieldset>
      <legend>Which shaft</legend>
      <WordField v-model="w.side!" name="side" label="Of" :options="sides" />
      <WordField v-model="w.bearing!" name="bearing" label="It turns in" :options="BEARINGS" />
      <template v-if="w.side === 'driver' && onMotor">
        <WordField v-model="w.motor!" name="shaft_motor" label="Electric motor" :options="YES" />
        <WordField v-if="w.motor === 'yes'" v-model="w.frame!" name="shaft_frame" label="Its frame" :options="frames" />
        <WordField
          v-model="w.keyway!"
          name="keyway"
          label="The shaft has"
          :options="[
            { value: '', label: 'a keyway' },
            { value: 'no', label: 'no keyway' },
          ]"
        />
      </template>
      <WordField
        v-if="w.motor !== 'yes' || w.side === 'driven' || !onMotor"
        v-model="w.crank!"
        name="crank"
        label="Overhung crankshaft"
        :options="YES"
      />
      <MeasureField
        v-model="q.limit!"
        name="limit"
        field="shaft_pull"
        label="Allowable shaft load"
        hint="its own sheet"
      />
    </fieldset>
    <div aria-live="polite" class="stack">
      <VerdictNotes v-if="answer" :verdicts="answer.verdicts" />
    </div>
    <fieldset>
      <legend>Where the wheel sits</legend>
      <MeasureField v-model="q.overhang!" name="overhang" label="Overhang" hint="wheel to near bearing" />
      <MeasureField v-model="q.bearing_span!" name="bearing_span" label="Between bearings" />
      <MeasureField v-model="q.shaft!" name="shaft" field="shaft_diameter" label="Shaft diameter" />
      <MeasureField
        v-if="w.bearing === 'bushing'"
        v-model="q.bushing_length!"
        name="bushing_length"
        label="Bushing length"
      />
      <MeasureField
        v-else
        v-model="q.bearing_rating!"
        name="bearing_rating"
        label="Bearing’s rating C"
        hint="its list"
      />
    </fieldset>
    <div class="numbers" v-if="answer && Object.keys(answer.figures).length">
      <FigureValue v-for="f in answer.figures" :key="f.key" :figure="f" :label="say(f.label)" />
    </div>
    <section v-if="answer?.life.length">
      <h3>What tension costs the bearing</h3>
      <ul class="life">
        <li v-for="p in answer.life" :key="p.times">
          <span>{{ p.times }} × as tight</span>
          <span class="bar" aria-hidden="true"><i :style="{ width: bar(p.life) }" /></span>
          <b>{{ Math.round(p.life * 100) }} %</b>
        </li>
      </ul>
      <p class="small soft">
        Of its life now, where the belt’s pull is its whole load (ISO 281); less steep where it is a part.
      </p>
    </section>
    <p class="small soft">{{ choices.cautions.deference }}</p>
  </div>
</template>

<style src="../../survey/ask/ask.css" scoped></style>
<style scoped>
.stack {
  display: grid;
  gap: 8px;
}
.numbers {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 14px;
  margin: 0;
}
.life {
  list-style: none;
  margin: 6px 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.life li {
  display: grid;
  grid-template-columns: 110px 1fr 52px;
  gap: 8px;
  align-items: center;
}
.life b {
  text-align: right;
}
.bar i {
  display: block;
  height: 10px;
  background: var(--ink-2);
}
</style>
