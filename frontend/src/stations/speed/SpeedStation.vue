<script setup lang="ts">
import { computed, inject } from 'vue'

import type { Choices, DriveOut } from '../../api/client'
import { say } from '../../settings'
import CautionStrip from '../../sheet/CautionStrip.vue'
import FigureValue from '../../sheet/FigureValue.vue'
import KeepReadingBar from '../../sheet/KeepReadingBar.vue'
import MeasureField from '../../sheet/MeasureField.vue'
import SettlesNote from '../../open/SettlesNote.vue'
import ReadingFoot from '../../sheet/ReadingFoot.vue'
import { useKeepReading } from '../../sheet/useKeepReading'
import { sheetKey } from '../../sheet/useSheet'
import VerdictSlip from '../../sheet/VerdictSlip.vue'
import InstrumentRack from './InstrumentRack.vue'
import LimitBar from './LimitBar.vue'
import ProposalNote from '../../sheet/ProposalNote.vue'
import ReadingsFile from './ReadingsFile.vue'
import TrainShafts from './TrainShafts.vue'
import WordField from '../survey/WordField.vue'

const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const state = inject(sheetKey)!
const figures = computed(() => state.sheet.value?.figures ?? {})
const t = computed(() => state.form.value.tachometer)
const keeper = useKeepReading('shaft speed', () => drive, state)
const { problem, kept, hourMeter, note, settles } = keeper
const read = computed(() => Boolean(t.value.tach_driven?.text))
const chain = computed(() => drive.kind.runs === 'chain')
function put(field: string, text: string, unit: string): void {
  if (field === 'tach_driver' || field === 'tach_driven') t.value[field] = { text, unit, origin: null }
}
const train = computed(() => state.train.value)
const shafts = computed(() => [
  { value: '', label: 'the last' },
  ...(train.value?.shafts.slice(1) ?? []).map((s) => ({ value: s.name, label: s.name })),
])
const next = computed(() =>
  !figures.value.driven_speed
    ? 'Survey both wheels and the driver speed first'
    : train.value
      ? 'Read the driver and one other shaft: the slip between them follows'
      : !read.value
        ? `By the diameters it turns ${figures.value.driven_speed.us}: read the driven shaft to know the slip`
        : '',
)
</script>

<template>
  <div class="station">
    <VerdictSlip :topics="['speed', 'design']" :flags="['rim-speed', 'belt-speed']" :next="next" />
    <CautionStrip :cautions="choices.cautions.speed" state="Running, guard on." />
    <ProposalNote :drive="drive" />
    <TrainShafts v-if="train" />
    <section v-else>
      <h3>{{ drive.kind.toothed ? 'By the teeth' : 'By the diameters' }}</h3>
      <div class="grid">
        <FigureValue :figure="figures.driver_speed" label="Driver" />
        <FigureValue :figure="figures.ratio" label="Ratio" doubt />
        <FigureValue :figure="figures.driven_speed" label="Driven, no slip" doubt />
        <FigureValue :figure="figures.design_speed" label="It should have" />
      </div>
    </section>
    <section class="read">
      <h3>By tachometer</h3>
      <WordField v-if="train" v-model="t.shaft!" name="shaft" label="Which shaft" :options="shafts" class="wide" />
      <MeasureField v-model="t.tach_driver!" name="tach_driver" label="Driver shaft" />
      <MeasureField v-model="t.tach_driven!" name="tach_driven" :label="train ? 'That shaft' : 'Driven shaft'" />
      <FigureValue :figure="figures.slip" label="Slip" doubt size="big" />
      <FigureValue :figure="figures.off_design" label="Off its design speed" doubt size="big" />
    </section>
    <InstrumentRack :drive="drive" to="these two" @take="put" />
    <ReadingsFile @take="put" />
    <p v-if="figures.slip && !train" class="small">
      <router-link :to="`/drives/${drive.id}/speed/means`"
        >What can that mean, and what would another wheel do?</router-link
      >
    </p>
    <ReadingFoot v-if="read" v-model:hours="hourMeter" v-model:note="note" :problem="problem" />
    <SettlesNote v-if="!read" v-model="settles" :drive="drive" :headline="kept" />
    <section v-if="figures.belt_speed">
      <h3>Speed limits</h3>
      <LimitBar
        v-for="key in ['belt_speed', 'driver_rim_speed', 'driven_rim_speed']"
        :key="key"
        :figure="figures[key]"
      />
      <p class="small soft">
        {{ say('Cast-iron wheels run to 6500 ft/min (33 m/s), unless another limit is cast on the wheel.') }}
        <template v-if="chain">How fast a chain may run depends on its size and oil: its rating says.</template>
      </p>
    </section>
  </div>
  <KeepReadingBar :keeper="keeper" :read="read" idle="Read the driven shaft first." label="Keep these speeds" />
</template>

<style scoped>
.station {
  padding: 16px 18px 18px;
  display: grid;
  gap: 16px;
}
section {
  border-top: 1px solid var(--hair);
  padding-top: 10px;
  display: grid;
  gap: 8px;
}
.proposal {
  border-left: 4px solid var(--ink-2);
  padding-left: 12px;
}
.grid,
.read {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 16px;
}
.read h3,
.wide {
  grid-column: 1 / -1;
}
</style>
