<script setup lang="ts">
import { ElMessageBox } from 'element-plus'
import { computed, inject, ref } from 'vue'

import type { Choices, DriveOut } from '../../api/client'
import { useMayWrite } from '../../api/queries'
import ChangedMeanwhile from '../../clash/ChangedMeanwhile.vue'
import { say } from '../../settings'
import CautionStrip from '../../sheet/CautionStrip.vue'
import { doneKey } from '../../open/useOpen'
import FigureValue from '../../sheet/FigureValue.vue'
import KeepBar from '../../sheet/KeepBar.vue'
import MeasureField from '../../sheet/MeasureField.vue'
import { type Standing, useKeepSurvey } from '../../sheet/useKeepSurvey'
import { MEANT, sheetKey } from '../../sheet/useSheet'
import VerdictSlip from '../../sheet/VerdictSlip.vue'
import { when } from '../../words'
import StandingChoice from './StandingChoice.vue'
import WordField from './WordField.vue'

const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const state = inject(sheetKey)!
const mayWrite = useMayWrite()
const survey = computed(() => state.form.value.survey)
const driver = computed(() => survey.value.driver)
const machine = computed(() => survey.value.machine)
const stage = state.first
const q = computed(() => state.sheaves.value.quantities)
const c = computed(() => state.sheaves.value.choices)
const d = computed(() => survey.value.design)
const figures = computed(() => state.sheet.value?.figures ?? {})

const standing = ref<Standing>('as found')
const reason = ref('')
const keeper = useKeepSurvey(() => drive, state)
const { busy, waiting, problem, kept } = keeper
const done = inject(doneKey)!
/** What was left as it is now stands may be a new set: the page where the thought arises asks. */
const keptAsLeft = ref(false)
async function keepNow(): Promise<void> {
  keptAsLeft.value = standing.value === 'as left'
  await keeper.keep(standing.value, reason.value)
}

/** The name on the belt says section and ribs too: all of it set in one tap. */
const named = computed(() => state.sheet.value?.belt_named)
function takeNamed(): void {
  const { section, ribs, belt } = named.value!
  Object.assign(c.value, { section, ribs, belt })
}
const next = computed(() => choices.wanted[state.sheet.value?.wanted[0] ?? '']?.next ?? '')
const FLAGS = [
  ...MEANT,
  'small-sheave',
  'bands-or-ribs',
  'estimated-rating',
  'too-few-belts',
  'long-belt',
  'short-takeup',
  'tight-fit',
  'small-wrap',
  'odd-length',
  'rim-speed',
  'belt-speed',
]
/** The kinds of groove that the section's sheaves are made with. */
const grooves = computed(() => (choices.grooves[c.value.section ?? ''] ?? []).map((g) => ({ value: g, label: g })))
/** Joined and ribbed belts are counted in bands. */
const bands = computed(() => state.sheet.value?.in_bands ?? false)
const byBelt = computed(() => figures.value.centres_by_belt)

async function takeBack(): Promise<void> {
  const sure = await ElMessageBox.confirm(
    'Everything typed since the survey was kept goes back to what is on the record.',
    'Discard all changes?',
    { confirmButtonText: 'Discard', cancelButtonText: 'Cancel' },
  ).catch(() => null)
  if (!sure) return
  state.takeKept()
  problem.value = null // what was refused is gone
}
</script>

<template>
  <div class="station">
    <VerdictSlip :topics="['length', 'rating']" :flags="FLAGS" :next="next" />
    <CautionStrip :cautions="choices.cautions.survey" state="Machine isolated." />

    <fieldset>
      <legend>Driver</legend>
      <MeasureField v-model="driver.driver_power" name="driver_power" label="Power" hint="plate" />
      <MeasureField v-model="driver.driver_speed" name="driver_speed" label="Speed" hint="plate" />
      <WordField
        v-model="driver.driver_class"
        name="driver_class"
        label="Kind of driver"
        wide
        :options="choices.driver_classes"
      />
    </fieldset>
    <fieldset>
      <legend>Driven machine</legend>
      <WordField
        v-model="machine.driven_class"
        name="driven_class"
        label="Kind of machine"
        wide
        :options="choices.driven_classes"
      />
      <MeasureField v-model="machine.hours_per_day" name="hours_per_day" label="Hours a day" />
      <FigureValue :figure="figures.service_factor" label="Service factor" class="aside" />
      <WordField v-model="stage.idler" name="idler" label="Idler" :options="choices.idlers" />
      <WordField
        v-model="machine.surroundings"
        name="surroundings"
        label="Surroundings"
        :options="choices.surroundings"
      />
      <WordField v-model="machine.starts" name="starts" label="Starts" :options="choices.starts" />
    </fieldset>
    <fieldset>
      <legend>Belts</legend>
      <WordField v-model="c.section!" name="section" label="Section" :options="choices.sections" />
      <WordField
        v-model="c.belt_count!"
        name="belt_count"
        :label="bands ? 'Bands, side by side' : 'How many, side by side'"
      />
      <WordField v-model="c.ribs!" name="ribs" label="Ribs of each" placeholder="1 for single belts" />
      <WordField v-model="c.belt!" name="belt" label="Name on the belt" placeholder="B81, or - when gone" />
      <FigureValue
        :figure="figures.belt_length ?? figures.length_by_tape"
        :label="figures.belt_length ? 'Its datum length' : 'Length by the tape'"
        class="aside"
      />
      <button v-if="named" type="button" class="bare named" @click="takeNamed">
        <u>{{ named.says }}: set it so</u>
      </button>
    </fieldset>
    <fieldset>
      <legend>{{ say('Sheaves') }} and centres</legend>
      <div class="with-basis">
        <MeasureField v-model="q.driver_diameter!" name="driver_diameter" :label="`Driver, ${c.driver_basis}`" />
        <WordField
          v-model="c.driver_basis!"
          name="driver_basis"
          label="measured as"
          :options="[
            { value: 'outside', label: 'outside' },
            { value: 'datum', label: 'datum (pitch)' },
          ]"
        />
        <WordField
          v-if="grooves.length > 1"
          v-model="c.driver_groove!"
          name="driver_groove"
          label="its grooves"
          :options="grooves"
        />
      </div>
      <div class="with-basis">
        <MeasureField v-model="q.driven_diameter!" name="driven_diameter" :label="`Driven, ${c.driven_basis}`" />
        <WordField
          v-model="c.driven_basis!"
          name="driven_basis"
          label="measured as"
          :options="[
            { value: 'outside', label: 'outside' },
            { value: 'datum', label: 'datum (pitch)' },
            { value: 'flat', label: 'a flat wheel (V-flat)' },
          ]"
        />
        <WordField
          v-if="grooves.length > 1 && c.driven_basis !== 'flat'"
          v-model="c.driven_groove!"
          name="driven_groove"
          label="its grooves"
          :options="grooves"
        />
      </div>
      <MeasureField v-model="q.centre_distance!" name="centre_distance" label="Centre distance" hint="shaft to shaft" />
      <div v-if="byBelt" class="aside"><FigureValue :figure="byBelt" label="The belt puts it at" doubt /></div>
      <MeasureField v-model="stage.travel_in" name="travel_in" label="Motor slides closer by" />
      <MeasureField v-model="stage.travel_out" name="travel_out" label="…and away by" />
      <WordField v-model="stage.held_by" name="held_by" label="Held tight by" :options="choices.held_by" />
      <WordField
        v-model="stage.centre_line_deg"
        name="centre_line_deg"
        label="Driven lies"
        :options="choices.directions"
      />
      <WordField
        v-model="driver.rotation"
        name="rotation"
        label="Driver turns"
        :options="[
          { value: 'clockwise', label: 'clockwise' },
          { value: 'counter-clockwise', label: 'counter-clockwise' },
        ]"
      />
    </fieldset>
    <fieldset>
      <legend>
        Design point
        <span class="soft small">what it is meant to have</span>
      </legend>
      <MeasureField v-model="d.design_speed!" name="design_speed" label="Driven speed" />
      <MeasureField v-model="d.design_amps!" name="design_amps" label="Full-load amps" hint="plate" />
      <MeasureField v-model="d.design_airflow!" name="design_airflow" label="Airflow" />
      <MeasureField v-model="d.design_pressure!" name="design_pressure" label="Pressure" />
      <MeasureField v-model="d.design_turns!" name="design_turns" label="Turns open" />
    </fieldset>
    <p v-if="figures.power_per_belt" class="row figures">
      <FigureValue :figure="figures.power_per_belt" label="One belt carries" />
      <FigureValue :figure="figures.belts_needed" label="Belts needed" />
      <FigureValue :figure="figures.rated_power" label="Rated, before factors" />
    </p>
    <p v-if="drive.part_number" class="small soft">The machine's own part number: {{ drive.part_number }}</p>
    <p v-if="drive.note" class="small soft">{{ drive.note }}</p>
  </div>

  <KeepBar
    :busy="busy"
    :waiting="waiting"
    :problem="problem"
    :kept="state.dirty.value ? '' : kept"
    :may-write="mayWrite"
    :disabled="!state.dirty.value"
    label="Keep this survey"
    :idle="drive.configuration_at ? `On the record since ${when(drive.configuration_at)}.` : 'Nothing typed yet.'"
    @keep="keepNow"
    @retry="keeper.retry"
  >
    <div v-if="state.dirty.value && mayWrite" class="row keep">
      <StandingChoice v-if="drive.configuration_id" v-model:standing="standing" v-model:reason="reason" />
      <button type="button" class="bare small" @click="takeBack"><u>Discard changes</u></button>
      <span v-if="state.draft.value" class="small soft">
        Not kept yet; on this device since {{ when(state.draft.value.at) }}.
      </span>
    </div>
    <p v-else-if="kept && keptAsLeft" class="row">
      <el-button @click="done('new set')">New belts went on</el-button>
      <el-button @click="done('new wheel')">Another wheel went on</el-button>
      <button v-if="keeper.before.value" type="button" class="bare small" @click="keeper.undo()">
        <u>Undo: bring back the survey before</u>
      </button>
    </p>
    <button v-else-if="kept && keeper.before.value" type="button" class="bare small" @click="keeper.undo()">
      <u>Undo: bring back the survey before</u>
    </button>
  </KeepBar>
  <ChangedMeanwhile
    v-if="problem?.status === 409"
    :problem="problem"
    :refresh="keeper.refresh"
    :mine="state.form.value.survey"
    :theirs="keeper.theirs.value"
    :was="state.was.value"
    @keep="(survey) => keeper.keepMerged(survey, standing, reason)"
    @theirs="keeper.refresh().then(() => (state.takeKept(), (problem = null)))"
  />
</template>

<style src="./ask/ask.css" scoped></style>
<style scoped>
.named {
  grid-column: 1 / -1;
  min-height: 44px;
  text-align: left;
}
.with-basis {
  display: grid;
  gap: 2px;
}
@media (max-width: 480px) {
  .aside {
    padding-top: 0;
  }
  .with-basis {
    grid-template-columns: minmax(0, 1fr) 130px;
    gap: 10px;
  }
}
.aside {
  padding-top: 20px;
}
.figures {
  gap: 22px;
  border-top: 1px solid var(--hair);
  padding-top: 12px;
}
</style>
