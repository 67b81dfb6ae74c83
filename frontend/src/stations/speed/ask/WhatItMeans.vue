<script setup lang="ts">
import { computed, inject } from 'vue'

import { api, type Choices, type DriveOut, unwrap } from '../../../api/client'
import { inSystem, say } from '../../../settings'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import { trimmed } from '../../../sheet/form'
import MeasureField from '../../../sheet/MeasureField.vue'
import { useAnswer } from '../../../sheet/useAnswer'
import { useAnswers } from '../../../sheet/useAnswers'
import { sheetKey } from '../../../sheet/useSheet'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import WordField from '../../survey/WordField.vue'
import LastSpeed from '../LastSpeed.vue'
import { speedAskKey } from '../useSpeedAsk'

/** What the tachometer and the diameters say together: slip or a wrong diameter, what each predicts for a change, what the change taught. */
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const state = inject(sheetKey)!
const asked = inject(speedAskKey)!
const t = computed(() => state.form.value.tachometer)
const body = computed(() =>
  trimmed({
    sheet: state.form.value,
    change: asked.value.change,
    new_diameter: asked.value.new_diameter,
    new_teeth: asked.value.new_teeth,
    after_driver: asked.value.after_driver,
    after_driven: asked.value.after_driven,
    target: asked.value.target,
  }),
)
const { answer } = useAnswer(body, (signal) =>
  unwrap(api.POST('/api/calc/speed/explain', { body: body.value, signal })),
)
useAnswers(answer)
const toothed = computed(() => drive.kind.toothed)
const read = computed(() => Boolean(t.value.tach_driven?.text))
const WHEELS = [
  { value: 'driver', label: 'the driver wheel' },
  { value: 'driven', label: 'the driven wheel' },
]
const percent = (share: number) => `${share > 0 ? '+' : ''}${(share * 100).toFixed(1)} %`
</script>

<template>
  <div class="station">
    <div aria-live="polite" class="stack">
      <VerdictNotes v-if="answer?.verdicts.length" :verdicts="answer.verdicts" />
      <p v-else class="soft">
        Read both shafts: when the tachometer and the diameters differ, this says what it can mean, and what each
        meaning predicts for the next wheel.
      </p>
    </div>
    <LastSpeed :drive="drive" />
    <CautionStrip :cautions="choices.cautions.speed" state="Running, guard on." />
    <fieldset>
      <legend>Read now</legend>
      <MeasureField v-model="t.tach_driver!" name="tach_driver" label="Driver shaft" hint="tachometer" />
      <MeasureField v-model="t.tach_driven!" name="tach_driven" label="Driven shaft" hint="tachometer" />
    </fieldset>
    <table v-if="answer?.explanations.length" class="why">
      <caption>
        {{
          answer.loss
        }}
        between diameters and tachometer
      </caption>
      <thead>
        <tr>
          <th scope="col">could be</th>
          <th scope="col">by hand, {{ answer.hand_turns }} turns give</th>
          <th scope="col">the change gives</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="e in answer.explanations" :key="e.title">
          <th scope="row">
            {{ e.title }}
            <span class="small soft">{{ e.plausible }}. {{ say(e.reason) }}</span>
          </th>
          <td>{{ e.by_hand }}</td>
          <td>
            <template v-if="e.predicted">
              <b>{{ inSystem(e.predicted) }}</b>
              <span class="small soft">± {{ inSystem(e.predicted_plus_minus!) }}</span>
            </template>
            <template v-else>–</template>
          </td>
        </tr>
      </tbody>
    </table>
    <fieldset>
      <legend>The change in mind</legend>
      <WordField v-model="asked.change" name="change" label="Changing" :options="WHEELS" />
      <WordField v-if="toothed" v-model="asked.new_teeth" name="new_teeth" label="New teeth" placeholder="count" />
      <MeasureField
        v-else
        v-model="asked.new_diameter"
        name="new_diameter"
        field="driver_diameter"
        label="New diameter"
        hint="measured as the old"
      />
      <MeasureField
        v-model="asked.target"
        name="target"
        field="target_speed"
        label="Speed wanted"
        hint="driven shaft"
      />
      <p v-if="answer?.by_diameters" class="aside">
        <span class="small soft">By the diameters it would turn</span>
        <b>{{ inSystem(answer.by_diameters) }}</b>
      </p>
    </fieldset>
    <fieldset v-if="read">
      <legend>After the change</legend>
      <MeasureField
        v-model="asked.after_driver"
        name="after_driver"
        field="tach_driver"
        label="Driver shaft"
        hint="- : as before"
      />
      <MeasureField v-model="asked.after_driven" name="after_driven" field="tach_driven" label="Driven shaft" />
      <p v-if="answer?.effective_change" class="aside wide">
        <span class="small soft"
          >Measured over diameters {{ answer.factor }}; effective diameter for the speed wanted</span
        >
        <b>{{ answer.effective_change.startsWith('-') ? '' : '+' }}{{ answer.effective_change }}</b>
      </p>
    </fieldset>
    <table v-if="answer?.diameters.length" class="why">
      <caption>
        Which diameter? Three percent in diameter is three percent in speed
      </caption>
      <tbody>
        <tr v-for="d in answer.diameters" :key="d.what">
          <th scope="row">{{ d.what }}</th>
          <td>{{ inSystem(d.driver) }} / {{ inSystem(d.driven) }}</td>
          <td>{{ d.ratio }}</td>
          <td>{{ d.speed ? inSystem(d.speed) : '' }}</td>
          <td class="soft">{{ d.off ? percent(d.off) : '' }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style src="../../survey/ask/ask.css" scoped></style>
<style src="../speed.css" scoped></style>
