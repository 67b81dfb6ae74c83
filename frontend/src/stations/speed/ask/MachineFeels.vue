<script setup lang="ts">
import { computed, inject } from 'vue'

import type { Choices, DriveOut } from '../../../api/client'
import { say } from '../../../settings'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import MeasureField from '../../../sheet/MeasureField.vue'
import { useAnswers } from '../../../sheet/useAnswers'
import { sheetKey } from '../../../sheet/useSheet'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import KeepSurvey from '../../survey/KeepSurvey.vue'
import WordField from '../../survey/WordField.vue'
import MachineRows from '../MachineRows.vue'
import type { MachineAnswer } from '../useMachine'
import type { Machine } from '../useSpeedAsk'
import { speedAskKey } from '../useSpeedAsk'

/** What the driven machine and its motor feel of another speed, and where it must stop. */
const { drive, choices, felt } = defineProps<{ drive: DriveOut; choices: Choices; felt: MachineAnswer | null }>()
const state = inject(sheetKey)!
const asked = inject(speedAskKey)!
useAnswers(computed(() => felt))
const m = computed(() => state.form.value.survey.machine as Machine)
const q = computed(() => m.value.quantities as Record<string, NonNullable<Machine['quantities'][string]>>)
const w = computed(() => m.value.words as Record<string, string>)
const d = computed(() => state.form.value.survey.design!)
const kinds = computed(() => [
  { value: '', label: 'not said' },
  ...Object.entries(felt?.kinds ?? {}).map(([value, label]) => ({ value, label })),
])
const fan = computed(() => m.value.kind === 'fan')
const liquid = computed(() => m.value.kind === 'centrifugal pump' || m.value.kind === 'positive displacement')
const live = computed(() => choices.cautions.speed.filter((c) => c.id === 'live'))
function addPoint(): void {
  const entry = () => ({ text: '', unit: '', origin: null })
  m.value.curve.push({ flow: entry(), pressure: entry() })
}
</script>

<template>
  <div class="station">
    <div aria-live="polite" class="stack">
      <VerdictNotes v-if="felt" :verdicts="felt.verdicts" />
    </div>
    <fieldset>
      <legend>What turns there</legend>
      <WordField v-model="m.kind" name="kind" label="It is" :options="kinds" wide />
      <MeasureField
        v-model="asked.new_speed"
        name="new_speed"
        field="target_speed"
        label="New speed"
        hint="driven shaft"
      />
      <MeasureField
        v-model="q.most_speed!"
        name="most_speed"
        field="machine_speed"
        label="Maximum speed"
        hint="plate, manual"
      />
    </fieldset>
    <MachineRows v-if="felt" :rows="felt.rows" at="at the new speed" />
    <CautionStrip
      :cautions="[...live, ...choices.cautions.speed.filter((c) => c.id !== 'live')]"
      state="Running, guard on."
    />
    <fieldset>
      <legend>The motor</legend>
      <MeasureField v-model="d.design_amps!" name="design_amps" label="Full-load amps" hint="plate" />
      <WordField v-model="w.service_factor!" name="service_factor" label="Service factor" placeholder="1.15, plate" />
      <MeasureField v-model="q.amps_now!" name="amps_now" field="amps" label="Amps now" hint="qualified person" />
      <MeasureField v-model="asked.amps_after" name="amps_after" field="amps" label="Amps after" hint="doors closed" />
      <MeasureField
        v-model="q.no_load_amps!"
        name="no_load_amps"
        field="amps"
        label="Amps, belt off"
        hint="if ever read"
      />
      <MeasureField v-model="q.power_now!" name="power_now" field="machine_power" label="or power now" />
    </fieldset>
    <fieldset v-if="m.kind && m.kind !== 'constant torque'">
      <legend>{{ liquid ? 'What it pumps' : 'What it moves' }}</legend>
      <MeasureField
        v-model="q.flow_now!"
        name="flow_now"
        :field="liquid ? 'liquid_flow' : 'machine_flow'"
        label="Flow now"
      />
      <MeasureField
        v-model="q.pressure_now!"
        name="pressure_now"
        field="machine_pressure"
        :label="fan ? 'Static pressure now' : 'Pressure now'"
      />
      <MeasureField
        v-if="m.kind === 'positive displacement'"
        v-model="q.displacement!"
        name="displacement"
        label="Volume a turn"
        hint="its data"
      />
      <template v-if="fan">
        <WordField v-model="w.temperature_now!" name="temperature_now" label="Air now" placeholder="70 F, 21 C" />
        <WordField v-model="w.temperature_new!" name="temperature_new" label="…and then" placeholder="as now" />
        <MeasureField v-model="q.altitude!" name="altitude" label="Altitude" />
      </template>
    </fieldset>
    <fieldset v-if="fan">
      <legend>The fan's own curve</legend>
      <MeasureField
        v-model="q.curve_speed!"
        name="curve_speed"
        field="train_speed"
        label="Holds for"
        hint="rpm on it"
      />
      <span />
      <template v-for="(p, k) in m.curve" :key="k">
        <MeasureField
          v-model="p.flow!"
          :name="`curve_flow_${k + 1}`"
          field="machine_flow"
          :label="`Point ${k + 1}, flow`"
        />
        <MeasureField
          v-model="p.pressure!"
          :name="`curve_pressure_${k + 1}`"
          field="machine_pressure"
          label="static pressure"
        />
      </template>
      <p class="row buttons">
        <el-button :disabled="m.curve.length >= 12" @click="addPoint">Add a point</el-button>
        <el-button v-if="m.curve.length" @click="m.curve.pop()">Take the last one out</el-button>
      </p>
    </fieldset>
    <p class="small soft">
      {{ say('A speed wanted elsewhere at this station stands here as the new speed until another is typed.') }}
      <template v-if="asked.target.text && !asked.new_speed.text">Now {{ asked.target.text }}.</template>
    </p>
  </div>
  <KeepSurvey :drive="drive" usual="machine and motor read" />
</template>

<style src="../../survey/ask/ask.css" scoped></style>
<style scoped>
.buttons {
  grid-column: 1 / -1;
}
</style>
