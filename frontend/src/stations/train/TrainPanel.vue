<script setup lang="ts">
import { computed, inject, provide } from 'vue'

import type { Choices, DriveOut, Layout } from '../../api/client'
import { inSystem, say } from '../../settings'
import SettlesNote from '../../open/SettlesNote.vue'
import CautionStrip from '../../sheet/CautionStrip.vue'
import type { WheelEntry } from '../../sheet/form'
import FigureValue from '../../sheet/FigureValue.vue'
import KeepReadingBar from '../../sheet/KeepReadingBar.vue'
import MeasureField from '../../sheet/MeasureField.vue'
import ReadingFoot from '../../sheet/ReadingFoot.vue'
import { useKeepReading } from '../../sheet/useKeepReading'
import VerdictSlip from '../../sheet/VerdictSlip.vue'
import { answersKey, sheetKey } from '../../sheet/useSheet'
import VerdictNotes from '../../sheet/VerdictNotes.vue'
import KeepSurvey from '../survey/KeepSurvey.vue'
import WordField from '../survey/WordField.vue'

/** A drive on many wheels, or of several stages: the same questions as on two wheels, stage by stage. */
const {
  drive,
  choices,
  station,
  layout = null,
} = defineProps<{
  drive: DriveOut
  choices: Choices
  station: 'speed' | 'size'
  layout?: Layout | null
}>()
const state = inject(sheetKey)!
const train = computed(() => state.train.value)
const STATE = { speed: 'Running, guard on.', size: 'Machine isolated.' } as const
const missing = computed(() => (train.value?.wanted ?? []).map((w) => choices.wanted[w]?.says ?? w))
/** The layout says what is wrong with its own fields, the sheet what is wrong with the readings. */
provide(answersKey, {
  note: (name) => layout?.notes[name] ?? state.sheet.value?.notes[name],
  problem: (name) => layout?.problems.find((p) => p.field === name) ?? state.problems.value.get(name),
})
const figures = computed(() => state.sheet.value?.figures ?? {})
const tach = computed(() => state.form.value.tachometer)
const read = computed(() => Boolean(tach.value.tach_driven.text))
const keeper = useKeepReading('shaft speed', () => drive, state)
const { problem, kept, hourMeter, note, settles } = keeper
const wheels = computed(() => state.form.value.survey.layout.wheels as WheelEntry[])
const loaded = (role: string) => role !== 'idler'
</script>

<template>
  <div v-if="train" class="station train">
    <VerdictNotes v-if="station === 'size'" :verdicts="train.stages.flatMap((s) => s.verdicts)" />
    <VerdictSlip
      v-if="station === 'speed'"
      :topics="['speed']"
      :flags="[]"
      next="Read the driver and one other shaft: the slip between them follows"
    />
    <p v-if="missing.length" class="ember" role="status">Survey needs {{ missing.join(', ') }}.</p>
    <CautionStrip :cautions="choices.cautions[station]" :state="STATE[station]" />

    <section v-if="station === 'speed'">
      <h3>Each shaft, without slip</h3>
      <table>
        <thead>
          <tr>
            <th scope="col">Shaft</th>
            <th scope="col" class="n">Speed</th>
            <th scope="col" class="n">{{ 'Driver\u00a0: shaft' }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in train.shafts" :key="s.name">
            <th scope="row">{{ s.name }}</th>
            <td class="n">{{ s.speed ? inSystem(s.speed) : '–' }}</td>
            <td class="n">{{ s.ratio || '–' }}</td>
          </tr>
        </tbody>
      </table>
      <h3>By tachometer</h3>
      <div class="read">
        <label>
          Which shaft
          <select v-model="tach.shaft" data-entry>
            <option value="">the last</option>
            <option v-for="s in train.shafts.slice(1)" :key="s.name" :value="s.name">{{ s.name }}</option>
          </select>
        </label>
        <MeasureField v-model="tach.tach_driver!" name="tach_driver" label="Driver shaft" />
        <MeasureField v-model="tach.tach_driven!" name="tach_driven" label="That shaft" />
        <FigureValue :figure="figures.slip" label="Slip" doubt size="big" />
      </div>
      <ReadingFoot v-if="read" v-model:hours="hourMeter" v-model:note="note" :problem="problem" />
      <SettlesNote v-if="!read" v-model="settles" :drive="drive" :headline="kept" />
      <p v-for="(s, i) in train.stages" :key="i" class="small soft">
        {{ say(s.title) }}: {{ s.runs }} {{ s.belt_speed ? inSystem(s.belt_speed) : '–'
        }}{{ s.ratio ? `, ratio ${s.ratio}` : '' }}
      </p>
    </section>

    <section v-for="s in station === 'speed' ? [] : train.stages" :key="s.number" :aria-label="`Stage ${s.number}`">
      <h3>{{ train.stages.length > 1 ? `Stage ${s.number}: ` : '' }}{{ say(s.title) }}</h3>
      <p class="small soft">
        {{ s.counted ? `${s.fitted} × ` : '' }}{{ s.belt || 'belt not named' }}
        <template v-if="s.power"> · takes in {{ inSystem(s.power) }}</template>
        <template v-if="s.factor"> · service factor {{ s.factor }}</template>
      </p>
      <table>
        <thead>
          <tr>
            <th scope="col">Wheel</th>
            <th scope="col" class="n">Power</th>
            <th scope="col" class="n">Wrap</th>
            <th scope="col" class="n">{{ s.counted ? 'Belts' : 'Of its rating' }}</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="w in s.wheels.filter((x) => loaded(x.role))"
            :key="w.name"
            :class="{ worst: w.name === s.governs }"
          >
            <th scope="row">{{ w.name }}</th>
            <td class="n">
              {{ w.power ? inSystem(w.power) : '–' }}
              <span v-if="w.shaft" class="soft small">{{ inSystem(w.shaft) }} at its shaft</span>
            </td>
            <td class="n">{{ w.wrap }}</td>
            <td class="n">{{ w.belts || '–' }}</td>
          </tr>
        </tbody>
      </table>
      <details class="other">
        <summary>Try another wheel in this stage</summary>
        <template v-for="w in s.wheels.filter((x) => loaded(x.role))" :key="w.place">
          <WordField
            v-if="wheels[w.place]?.teeth"
            v-model="wheels[w.place]!.teeth!"
            :name="`wheel_${w.place + 1}_teeth`"
            :label="`${w.name}, teeth`"
          />
          <MeasureField
            v-else-if="wheels[w.place]"
            v-model="wheels[w.place]!.diameter!"
            :name="`wheel_${w.place + 1}_diameter`"
            field="driven_diameter"
            :label="`${w.name}, outside`"
          />
        </template>
        <p class="small soft">Shafts, powers and ratings above follow at once; the rest of the drive stays as it is.</p>
      </details>
    </section>
  </div>
  <KeepReadingBar
    v-if="station === 'speed' && train"
    :keeper="keeper"
    :read="read"
    idle="Read a driven shaft first."
    label="Keep these speeds"
  />
  <KeepSurvey v-if="station === 'size' && state.dirty.value" :drive="drive" usual="another wheel in a stage" />
</template>

<style scoped>
.train {
  display: grid;
  gap: 14px;
  padding: 16px 18px 24px;
}
h3 {
  margin: 0 0 4px;
}
table + h3 {
  margin-top: 14px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
}
th,
td {
  text-align: left;
  padding: 8px 6px;
  border-bottom: 1px solid var(--hair-2);
  vertical-align: baseline;
}
thead th {
  font-weight: 560;
  font-size: 13.5px;
  color: var(--ink-2, inherit);
}
tbody th {
  font-weight: 500;
}
.n {
  text-align: right;
  white-space: nowrap;
}
.worst > * {
  background: var(--ember-tint);
  font-weight: 620;
}
.read {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  padding: 6px 0 12px;
}
.read select {
  width: 100%;
  min-height: 44px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 8px;
  font-size: 16px;
}
.other summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  cursor: pointer;
  text-decoration: underline;
}
section p {
  margin: 4px 0;
}
</style>
