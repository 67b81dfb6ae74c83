<script setup lang="ts">
import { computed, inject } from 'vue'

import type { Choices, DriveOut } from '../../api/client'
import { inSystem, say } from '../../settings'
import CautionStrip from '../../sheet/CautionStrip.vue'
import FigureValue from '../../sheet/FigureValue.vue'
import KeepReadingBar from '../../sheet/KeepReadingBar.vue'
import MeasureField from '../../sheet/MeasureField.vue'
import SettlesNote from '../../open/SettlesNote.vue'
import ReadingFoot from '../../sheet/ReadingFoot.vue'
import { useKeepReading } from '../../sheet/useKeepReading'
import { sheetKey } from '../../sheet/useSheet'
import { ago } from '../../words'
import VerdictSlip from '../../sheet/VerdictSlip.vue'
import TensionWindow from './TensionWindow.vue'

const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const state = inject(sheetKey)!
const figures = computed(() => state.sheet.value?.figures ?? {})
const g = computed(() => state.form.value.gauge)
const keeper = useKeepReading('belt tension', () => drive, state)
const { problem, kept, hourMeter, note, strand, wasSet, settles } = keeper
const read = computed(() => g.value.forces?.some((f) => f.text) ?? false)
const fresh = computed(() => g.value.belt_state === 'new')
const low = computed(() => figures.value[fresh.value ? 'force_new_low' : 'force_low'])
const WANTED: Record<string, string> = {
  belt_count: 'how many belts',
  driver_power: 'the driver power',
  driven_class: 'the kind of machine',
  hours_per_day: 'the hours a day',
  centre_distance: 'the centre distance or the belt',
  section: 'the section',
  driver_speed: 'the driver speed',
  driver_diameter: 'the driver sheave',
  driven_diameter: 'the driven sheave',
}
const missing = computed(() => state.sheet.value?.wanted.map((w) => WANTED[w] ?? w) ?? [])
const next = computed(() =>
  missing.value.length ? `Survey still wants ${missing.value.join(', ')}` : 'Gauge each belt at mid-span',
)
</script>

<template>
  <div class="station">
    <VerdictSlip :topics="['tension', 'set']" :next="next" />
    <CautionStrip :cautions="choices.cautions.tension" state="Machine isolated." />

    <div class="state" role="radiogroup" aria-label="State of the belts">
      <label v-for="s in ['run in', 'new']" :key="s" :class="{ on: g.belt_state === s }">
        <input v-model="g.belt_state" type="radio" :value="s" class="sr" name="belt-state" />
        {{ s === 'new' ? 'New belts' : 'Run-in belts' }}
      </label>
    </div>

    <p v-if="drive.hours.settling" class="small">
      This set was fitted {{ ago(drive.hours.set_at!) }} and has run about
      {{ Math.round(drive.hours.set_hours ?? 0) }} h: it is still settling, read it as new.
    </p>
    <ol v-if="figures.force_low && low" class="do">
      <li>Straightedge or string across both {{ say('sheaves') }} over the strand, or the next belt as the line.</li>
      <li>
        Push square at mid-span until it is
        <FigureValue :figure="figures.deflection" label="down by" size="big" />
      </li>
      <li>
        Read the force: it should be
        <span class="pair">
          <FigureValue :figure="low" label="from" size="big" />
          <FigureValue :figure="figures.force_high" label="to" size="big" />
        </span>
      </li>
    </ol>

    <div class="gauge">
      <MeasureField
        v-for="(_, i) in g.forces"
        :key="i"
        v-model="g.forces![i]!"
        :name="`force_${i + 1}`"
        field="force"
        tight
        :label="`Belt ${i + 1}`"
        :hint="figures[`strand_${i + 1}`] ? `→ ${inSystem(figures[`strand_${i + 1}`]!)}` : ''"
      />
    </div>
    <div v-if="g.forces?.length" class="gauge how">
      <MeasureField v-model="g.deflection!" name="deflection" label="If pushed otherwise" />
      <label class="tool">
        With
        <select v-model="g.tool" data-entry>
          <option v-for="t in choices.force_tools" :key="t.value" :value="t.value">{{ t.label }}</option>
        </select>
      </label>
      <label class="tool">
        Strand
        <select v-model="strand" data-entry>
          <option v-for="t in ['upper', 'lower', 'left', 'right']" :key="t" :value="t">{{ t }}</option>
        </select>
      </label>
    </div>
    <div v-if="figures.strand_average" class="row means">
      <FigureValue :figure="figures.strand_average" label="Average a strand" doubt size="big" />
      <FigureValue :figure="figures.strand_spread" label="Spread" size="big" />
    </div>

    <ReadingFoot v-if="read" v-model:hours="hourMeter" v-model:note="note" :problem="problem" />
    <el-checkbox v-if="read" v-model="wasSet">The tension was set: this is how it was left</el-checkbox>
    <SettlesNote v-if="!read" v-model="settles" :drive="drive" :headline="kept" />
    <TensionWindow v-if="figures.tension_low" :figures="figures" :fresh="fresh" />
    <div v-if="figures.static_tension" class="row means">
      <FigureValue :figure="figures.static_tension" label="Static tension wanted" />
      <FigureValue :figure="figures.stiffness_term" label="Belt stiffness" />
      <FigureValue :figure="figures.span" label="Span" />
    </div>
  </div>
  <KeepReadingBar :keeper="keeper" :read="read" idle="Gauge a belt first." label="Keep this reading" />
</template>

<style scoped>
.station {
  padding: 16px 18px 18px;
  display: grid;
  gap: 14px;
}
.state {
  display: grid;
  grid-template-columns: 1fr 1fr;
  border: 1px solid var(--ink);
  border-radius: 3px;
  overflow: hidden;
}
.state label {
  text-align: center;
  padding: 10px;
  cursor: pointer;
  font-stretch: 78%;
  font-weight: 620;
  min-height: 44px;
}
.state label.on {
  background: var(--ink);
  color: var(--sheet);
}
.state label:focus-within {
  outline: 2px solid var(--focus);
  outline-offset: -3px;
}
.do {
  margin: 0;
  padding-left: 20px;
  display: grid;
  gap: 6px;
  font-size: 14.5px;
}
.pair {
  display: inline-flex;
  gap: 18px;
}
.do :deep(.figure) {
  display: inline-flex;
  align-items: baseline;
  gap: 6px;
  vertical-align: baseline;
}
.gauge {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 14px;
}
.how {
  grid-template-columns: 1.5fr 1fr 0.8fr;
}
.tool {
  display: grid;
  gap: 3px;
  font-size: 13.5px;
  font-weight: 560;
  align-content: start;
}
.tool select {
  min-height: 46px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  padding: 0 8px;
}
.means {
  gap: 26px;
  border-top: 1px solid var(--hair);
  padding-top: 10px;
}
</style>
