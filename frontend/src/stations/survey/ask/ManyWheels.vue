<script setup lang="ts">
import { useRefHistory } from '@vueuse/core'
import { computed, inject, provide } from 'vue'

import type { Choices, DriveOut, Layout } from '../../../api/client'
import { useFamilies } from '../../../api/queries'
import { faceOf } from '../../../drives/registry'
import { inSystem, say } from '../../../settings'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import { completedFitted, type LayoutForm, type Stage, type Survey } from '../../../sheet/form'
import {
  addBelt,
  type Belts,
  addKeeper,
  addWheel,
  blankLayout,
  removeLastBelt,
  removeWheel,
  roots,
  shiftWheel,
  toDragging,
} from '../../../sheet/layoutEdit'
import MeasureField from '../../../sheet/MeasureField.vue'
import { answersKey, sheetKey } from '../../../sheet/useSheet'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import DriverFields from '../DriverFields.vue'
import KeepSurvey from '../KeepSurvey.vue'
import WordField from '../WordField.vue'
import KeeperFields from './wheels/KeeperFields.vue'
import WheelFields from './wheels/WheelFields.vue'

/** A drive on many wheels: the wheels in the order the belts meet them; placed by tape between centres, by coordinates, or by hand. */
const { drive, choices, layout } = defineProps<{ drive: DriveOut; choices: Choices; layout: Layout | null }>()
const emit = defineEmits<{ focus: [wheel: number] }>()
const state = inject(sheetKey)!
const survey = computed(() => state.form.value.survey)
const path = computed({
  get: (): LayoutForm => survey.value.layout,
  set: (value) => (state.form.value.survey.layout = value as Survey['layout']),
})
/** The wheels and the belts they run on change together, and are taken back together. */
const belts = computed({
  get: (): Belts => ({ layout: survey.value.layout, stages: survey.value.stages }),
  set: (value) => Object.assign(state.form.value.survey, value),
})
const change = (part: Partial<LayoutForm>) => (path.value = { ...path.value, ...part })
const wheels = computed(() => path.value.wheels ?? [])
const tapes = computed(() => path.value.tapes ?? [])
const { data: families } = useFamilies()
/** The kinds that are surveyed round many wheels. */
const kinds = computed(() =>
  (families.value?.families ?? []).filter((f) => f.on_many).map((f) => ({ value: f.key, label: f.label })),
)
/** While the list of kinds is on its way only the drive's own is known. */
const kindOf = (stage?: Stage) =>
  families.value?.families.find((f) => f.key === stage?.fitted.family) ??
  (stage?.fitted.family === drive.family ? drive.kind : { part: '', runs: '' })
const runs = (stage: Stage) => kindOf(stage).runs
const prefix = (i: number) => (i ? `belt_${i + 1}_` : '')
/** One more name for what goes round: a belt, or a chain. */
const title = (stage: Stage, i: number) =>
  survey.value.stages.length > 1
    ? `${runs(stage) === 'chain' ? 'Chain' : 'Belt'} ${i + 1}${i ? '' : ', from the driver'}`
    : `The ${runs(stage)}`
function changeKind(stage: Stage, family: string): void {
  stage.fitted = completedFitted(family)
}
const two = computed(() => faceOf(drive.kind).survey !== null)
const { undo, redo, canUndo, canRedo } = useRefHistory(belts, { deep: true, capacity: 60 })
function replaced<T>(list: T[], at: number, item: T): T[] {
  return list.map((old, i) => (i === at ? item : old))
}

const problems = computed(() => new Map((layout?.problems ?? []).map((p) => [p.field, p])))
provide(answersKey, {
  note: (name) => layout?.notes[name],
  problem: (name) => problems.value.get(name) ?? state.problems.value.get(name),
})
const BELT = /^belt_\d+$/
const whole = computed(() =>
  (layout?.problems ?? []).filter((p) => p.field === 'wheels' || p.field === 'tapes' || BELT.test(p.field)),
)
const lastBelt = computed(() => survey.value.stages.length)
function add(role: string): void {
  const name = role === 'driver' ? 'driver' : `${role} ${wheels.value.length + 1}`
  const grown = addWheel(path.value, role, lastBelt.value, name)
  path.value = grown.placed_by === 'drag' ? toDragging(grown, layout) : grown
}
function placeBy(how: string): void {
  path.value = how === 'drag' ? toDragging(path.value, layout) : { ...path.value, placed_by: how }
}
interface Numbered {
  value: number
  label: string
}
/** The list before when it says the same, so that what shows it need not be drawn again. */
const steady = (before: Numbered[] | undefined, now: Numbered[]) =>
  before?.length === now.length && before.every((n, i) => n.value === now[i]?.value && n.label === now[i].label)
    ? before
    : now
const numbers = computed<Numbered[]>((before) =>
  steady(
    before,
    wheels.value.map((w, i) => ({ value: i + 1, label: `${i + 1} ${w.name}` })),
  ),
)
const shafts = computed<Numbered[]>((before) => {
  const own = new Set(roots(path.value))
  return steady(
    before,
    numbers.value.filter((n) => own.has(n.value)),
  )
})
const WAYS = [
  { value: 'clockwise', label: 'clockwise' },
  { value: 'counter-clockwise', label: 'counter-clockwise' },
]
const LAYS = [
  { value: 'open', label: 'open' },
  { value: 'crossed', label: 'crossed' },
  { value: 'quarter-turn', label: 'quarter turn: shafts square' },
]
const needs = (number: number) => layout?.belts[number - 1]?.needs
</script>

<template>
  <div class="station" data-panel>
    <div class="slip" aria-live="polite">
      <p v-for="p in whole" :key="p.sentence" class="problem">
        <span aria-hidden="true">■</span>
        {{ BELT.test(p.field) ? `Number ${p.field.slice(5)}: ` : '' }}{{ say(p.sentence) }}
      </p>
      <VerdictNotes :verdicts="layout?.verdicts ?? []" fold />
      <template v-if="!wheels.length">
        <h3>More than two wheels, or more than one stage</h3>
        <p class="soft">
          Begin with the wheel that drives, then each wheel in the order in which the belt meets it, idlers too. Tape
          between their centres; the layout draws itself.
        </p>
        <p v-if="two" class="small">
          <router-link :to="`/drives/${drive.id}/survey`">It has two wheels: survey it so</router-link>
        </p>
      </template>
    </div>
    <CautionStrip :cautions="choices.cautions.survey" state="Machine isolated." />

    <fieldset v-for="(b, i) in survey.stages" :key="i" class="belt">
      <legend class="head">
        <span>{{ title(b, i) }}</span>
        <button
          v-if="i && i === lastBelt - 1"
          type="button"
          class="bare tool"
          :aria-label="`Take ${runs(b)} ${i + 1} out, with its wheels`"
          @click="belts = removeLastBelt(belts)"
        >
          ✕
        </button>
      </legend>
      <WordField
        v-if="i"
        :model-value="b.fitted.family ?? ''"
        :name="`belt_${i + 1}_kind`"
        label="What goes round"
        :options="kinds"
        @update:model-value="changeKind(b, $event)"
      />
      <component
        :is="faceOf(kindOf(b)).loop"
        v-if="faceOf(kindOf(b)).loop"
        :key="b.fitted.family"
        v-model="b.fitted"
        :prefix="prefix(i)"
        :choices="choices"
      />
      <WordField v-model="b.held_by" :name="`${prefix(i)}held_by`" label="Held tight by" :options="choices.held_by" />
      <WordField
        v-if="faceOf(kindOf(b)).wheels === 'rim'"
        v-model="b.lay"
        :name="`${prefix(i)}lay`"
        label="It lies"
        :options="LAYS"
      />
      <template v-if="!i">
        <WordField v-model="survey.driver.rotation" name="rotation" label="Driver turns" :options="WAYS" />
        <MeasureField v-model="survey.driver.driver_speed" name="driver_speed" label="Driver speed" hint="plate" />
      </template>
      <MeasureField
        v-if="runs(b) === 'belt'"
        v-model="b.tension"
        :name="i ? `belt_${i + 1}_tension` : 'belt_tension'"
        field="belt_tension"
        label="Tension, each belt at rest"
        :hint="needs(i + 1) ? `needs ${inSystem(needs(i + 1)!)}` : ''"
      />
    </fieldset>
    <DriverFields v-if="two" :speed="false" />
    <table v-if="layout?.shafts.length" class="shafts">
      <caption class="sr">
        Shafts that carry several wheels
      </caption>
      <tbody>
        <tr v-for="s in layout.shafts" :key="s.wheels.join()">
          <th scope="row">{{ s.wheels.map((i) => layout?.wheels[i]?.name).join(' + ') }}</th>
          <td>{{ s.speed ? inSystem(s.speed) : 'speed not known' }}</td>
          <td v-if="s.pull">
            the belts pull it with {{ inSystem(s.pull) }}, towards {{ Math.round(s.towards_deg ?? 0) }}°
          </td>
        </tr>
      </tbody>
    </table>

    <table v-if="layout?.take_ups.some((t) => t.belts.length)" class="shafts">
      <caption class="sr">
        Where the take-up stands for each belt
      </caption>
      <tbody>
        <template v-for="t in layout.take_ups" :key="t.wheel">
          <tr v-for="b in t.belts" :key="b.belt">
            <th scope="row">{{ b.belt }}</th>
            <td>
              {{
                b.problem
                  ? say(b.problem)
                  : `${layout.wheels[t.wheel]?.name} ${b.way && b.travel ? `${inSystem(b.travel)} ${b.way} than now` : 'as it stands'}`
              }}
            </td>
          </tr>
        </template>
      </tbody>
    </table>

    <p class="row">
      <el-button :disabled="!canUndo" @click="undo()">Undo</el-button>
      <el-button :disabled="!canRedo" @click="redo()">Redo</el-button>
      <el-radio-group
        :model-value="path.placed_by"
        aria-label="Placed by"
        @update:model-value="placeBy(String($event))"
      >
        <el-radio value="tape">by tape</el-radio>
        <el-radio value="coordinates">by coordinates</el-radio>
        <el-radio value="drag">by hand on the drawing</el-radio>
      </el-radio-group>
    </p>
    <p v-if="path.placed_by === 'drag'" class="small soft">
      Move the wheels in the drawing; what is taped and held stays as it was measured. Arrow keys move a wheel too.
    </p>
    <WheelFields
      v-for="(w, i) in wheels"
      :key="i"
      :model-value="w"
      :number="i + 1"
      :count="wheels.length"
      :belts="survey.stages"
      :made="faceOf(kindOf(survey.stages[(w.belt ?? 1) - 1]))"
      :runs="runs(survey.stages[(w.belt ?? 1) - 1] ?? survey.stages[0]!)"
      :coordinates="path.placed_by === 'coordinates'"
      :shafts="shafts"
      :choices="choices"
      @update:model-value="change({ wheels: replaced(wheels, i, $event) })"
      @shift="path = shiftWheel(path, i + 1, $event)"
      @remove="path = removeWheel(path, i + 1)"
      @focusin="emit('focus', i)"
    />
    <p class="row">
      <el-button v-if="!wheels.some((w) => w.role === 'driver')" type="primary" @click="add('driver')"
        >Add the driver</el-button
      >
      <template v-else>
        <el-button @click="add('driven')">Add a driven wheel</el-button>
        <el-button @click="add('idler')">Add an idler</el-button>
        <el-button v-if="wheels.length > 1 && lastBelt < 6" @click="belts = addBelt(belts)">Add a stage</el-button>
      </template>
    </p>

    <fieldset v-if="path.placed_by !== 'coordinates' && wheels.length > 1">
      <legend>
        Tape, centre to centre
        <span class="soft small">three to each further wheel: the third says on which side it lies</span>
      </legend>
      <div v-for="(t, i) in tapes" :key="i" class="tape" :class="{ holds: path.placed_by === 'drag' }">
        <select v-model="t.a" :aria-label="`Tape ${i + 1} from`">
          <option v-for="n in numbers" :key="n.value" :value="n.value">{{ n.label }}</option>
        </select>
        <select v-model="t.b" :aria-label="`Tape ${i + 1} to`">
          <option v-for="n in numbers" :key="n.value" :value="n.value">{{ n.label }}</option>
        </select>
        <MeasureField
          v-model="t.distance!"
          :name="`tape_${i + 1}`"
          field="centre_distance"
          :label="`${t.a} to ${t.b}`"
          tight
        />
        <el-checkbox v-if="path.placed_by === 'drag'" v-model="t.held" :aria-label="`Hold tape ${i + 1}`"
          >hold</el-checkbox
        >
      </div>
      <p class="row wide">
        <el-button
          @click="
            change({
              tapes: [...tapes, { a: 1, b: wheels.length, distance: { text: '', unit: '', origin: null }, held: true }],
            })
          "
          >One more tape</el-button
        >
        <el-checkbox v-if="path.placed_by === 'tape'" v-model="path.mirrored"
          >it looks the other way round (mirror image)</el-checkbox
        >
      </p>
      <WordField
        v-if="path.placed_by === 'tape'"
        v-model="survey.stages[0]!.centre_line_deg"
        name="centre_line_deg"
        :label="`Seen from wheel 1, wheel 2 lies`"
        :options="choices.directions"
        wide
      />
    </fieldset>

    <template v-if="wheels.length > 1">
      <KeeperFields
        v-for="(k, i) in path.keepers ?? []"
        :key="`keeper ${i}`"
        :model-value="k"
        :number="i + 1"
        :belts="lastBelt"
        :shafts="shafts"
        @update:model-value="change({ keepers: replaced(path.keepers ?? [], i, $event) })"
        @remove="change({ keepers: (path.keepers ?? []).filter((_, j) => j !== i) })"
      />
      <p class="row">
        <el-button @click="path = addKeeper(path, layout)">Add a keeper or guide</el-button>
        <el-button v-if="!path.carriage?.run" @click="change({ carriage: { ...blankLayout().carriage, run: 1 } })"
          >The belt is clamped to a carriage</el-button
        >
      </p>
      <fieldset v-if="path.carriage?.run">
        <legend class="head">
          <span>Carriage</span>
          <button
            type="button"
            class="bare tool"
            aria-label="No carriage"
            @click="change({ carriage: blankLayout().carriage })"
          >
            ✕
          </button>
        </legend>
        <WordField
          :model-value="String(path.carriage.run)"
          name="carriage_run"
          label="On the run that leaves"
          :options="numbers.map((n) => ({ value: String(n.value), label: n.label }))"
          wide
          @update:model-value="change({ carriage: { ...path.carriage, run: Number($event) } })"
        />
        <MeasureField
          v-model="path.carriage.position!"
          name="carriage_position"
          field="coordinate"
          label="Wheel centre to near clamp"
        />
        <MeasureField
          v-model="path.carriage.length!"
          name="carriage_length"
          field="coordinate"
          label="Clamp to clamp"
        />
      </fieldset>
    </template>
  </div>
  <KeepSurvey :drive="drive" usual="layout of the wheels" />
</template>

<style src="./ask.css" scoped></style>
<style src="./wheels/wheels.css" scoped></style>
<style src="./manyWheels.css" scoped></style>
