<script setup lang="ts">
import { useRefHistory } from '@vueuse/core'
import { computed, inject, provide } from 'vue'

import type { Choices, DriveOut, Layout } from '../../../api/client'
import { useMayWrite } from '../../../api/queries'
import { say } from '../../../settings'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import { blankPath, blankWheel, usualUnit } from '../../../sheet/form'
import KeepBar from '../../../sheet/KeepBar.vue'
import MeasureField from '../../../sheet/MeasureField.vue'
import { useKeepSurvey } from '../../../sheet/useKeepSurvey'
import { answersKey, sheetKey } from '../../../sheet/useSheet'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import ChangedMeanwhile from '../ChangedMeanwhile.vue'
import WordField from '../WordField.vue'

/** A drive on many wheels: the wheels in the order the belt meets them, placed by tape between their centres or by coordinates. */
const { drive, choices, layout } = defineProps<{ drive: DriveOut; choices: Choices; layout: Layout | null }>()
const emit = defineEmits<{ focus: [wheel: number] }>()
const state = inject(sheetKey)!
const mayWrite = useMayWrite()
const survey = computed(() => state.form.value.survey)
const path = computed({
  get: () => survey.value.path ?? blankPath(),
  set: (value) => (state.form.value.survey.path = value),
})
const wheels = computed(() => path.value.wheels ?? [])
const tapes = computed(() => path.value.tapes ?? [])
const { undo, redo, canUndo, canRedo } = useRefHistory(path, { deep: true, capacity: 60 })

const problems = computed(() => new Map((layout?.problems ?? []).map((p) => [p.field, p])))
provide(answersKey, {
  note: (name) => layout?.notes[name],
  problem: (name) => problems.value.get(name) ?? state.problems.value.get(name),
})
const whole = computed(() => [problems.value.get('wheels'), problems.value.get('tapes')].filter((p) => p !== undefined))

const unit = () => usualUnit(choices, 'centre_distance')
const tape = (a: number, b: number) => ({ a, b, distance: { text: '', unit: unit(), origin: null } })
function add(role: string): void {
  const number = wheels.value.length + 1
  path.value.wheels = [...wheels.value, blankWheel(unit(), role, role === 'driver' ? 'driver' : `${role} ${number}`)]
  // Two tapes hang a wheel, from those before it, which a person reaches best; a third says on which side it lies.
  const from = [number - 3, number - 2, number - 1].filter((k) => k >= 1)
  path.value.tapes = [...tapes.value, ...from.map((k) => tape(k, number))]
}
function remove(k: number): void {
  path.value.wheels = wheels.value.filter((_, i) => i !== k - 1)
  path.value.tapes = tapes.value
    .filter((t) => t.a !== k && t.b !== k)
    .map((t) => ({ ...t, a: t.a > k ? t.a - 1 : t.a, b: t.b > k ? t.b - 1 : t.b }))
}
function shift(k: number, by: number): void {
  const to = k - 1 + by
  const moved = [...wheels.value]
  const [one] = moved.splice(k - 1, 1)
  if (!one || to < 0 || to >= wheels.value.length) return
  moved.splice(to, 0, one)
  const at = (n: number) => moved.indexOf(wheels.value[n - 1]!) + 1
  const renamed = tapes.value.map((t) => ({ ...t, a: at(t.a), b: at(t.b) }))
  path.value.wheels = moved
  path.value.tapes = renamed
}
const numbers = computed(() => wheels.value.map((w, i) => ({ value: i + 1, label: `${i + 1} ${w.name}` })))
const ROLES = [
  { value: 'driver', label: 'drives' },
  { value: 'driven', label: 'is driven' },
  { value: 'idler', label: 'idler' },
]
const CONTACTS = [
  { value: 'inside', label: "on the belt's inside" },
  { value: 'back', label: "on the belt's back" },
]
const FACES = [
  { value: 'grooved', label: 'grooved' },
  { value: 'flat', label: 'flat' },
]
const WAYS = [
  { value: 'clockwise', label: 'clockwise' },
  { value: 'counter-clockwise', label: 'counter-clockwise' },
]
const keeper = useKeepSurvey(() => drive, state)
</script>

<template>
  <div class="station" data-panel>
    <div class="slip" aria-live="polite">
      <p v-for="p in whole" :key="p.sentence" class="problem">
        <span aria-hidden="true">■</span>
        {{ say(p.sentence) }}
      </p>
      <VerdictNotes :verdicts="layout?.verdicts ?? []" />
      <template v-if="!wheels.length">
        <h3>More than two wheels on one belt</h3>
        <p class="soft">
          Begin with the wheel that drives, then each wheel in the order in which the belt meets it, idlers too. Tape
          between their centres; the layout draws itself.
        </p>
      </template>
    </div>
    <CautionStrip :cautions="choices.cautions.survey" state="Machine isolated." />
    <fieldset>
      <legend>The belt</legend>
      <WordField v-model="survey.choices!.section!" name="section" label="Section" :options="choices.sections" />
      <WordField v-model="survey.choices!.rotation!" name="rotation" label="Driver turns" :options="WAYS" />
    </fieldset>
    <p class="row">
      <el-button :disabled="!canUndo" @click="undo()">Undo</el-button>
      <el-button :disabled="!canRedo" @click="redo()">Redo</el-button>
      <el-radio-group v-model="path.placed_by" aria-label="Placed by">
        <el-radio value="tape">by tape</el-radio>
        <el-radio value="coordinates">by coordinates</el-radio>
      </el-radio-group>
    </p>
    <fieldset v-for="(w, i) in wheels" :key="i" class="wheel" @focusin="emit('focus', i)">
      <legend>
        <span class="number">{{ i + 1 }}</span>
        <input v-model="w.name" class="name" :aria-label="`Name of wheel ${i + 1}`" maxlength="60" data-entry />
        <button
          type="button"
          class="bare tool"
          :disabled="i === 0"
          :aria-label="`Wheel ${i + 1} earlier`"
          @click="shift(i + 1, -1)"
        >
          ↑
        </button>
        <button
          type="button"
          class="bare tool"
          :disabled="i === wheels.length - 1"
          :aria-label="`Wheel ${i + 1} later`"
          @click="shift(i + 1, 1)"
        >
          ↓
        </button>
        <button type="button" class="bare tool" :aria-label="`Take wheel ${i + 1} out`" @click="remove(i + 1)">
          ✕
        </button>
      </legend>
      <MeasureField
        v-model="w.diameter!"
        :name="`wheel_${i + 1}_diameter`"
        field="driven_diameter"
        label="Outside diameter"
      />
      <WordField v-model="w.role!" :name="`wheel_${i + 1}_role`" label="It" :options="ROLES" />
      <WordField v-model="w.contact!" :name="`wheel_${i + 1}_contact`" label="Runs" :options="CONTACTS" />
      <WordField v-model="w.face!" :name="`wheel_${i + 1}_face`" label="Face" :options="FACES" />
      <template v-if="path.placed_by === 'coordinates' && i">
        <MeasureField
          v-model="w.x!"
          :name="`wheel_${i + 1}_x`"
          field="coordinate"
          label="Right of wheel 1"
          hint="- for left"
        />
        <MeasureField
          v-model="w.y!"
          :name="`wheel_${i + 1}_y`"
          field="coordinate"
          label="Above wheel 1"
          hint="- for below"
        />
      </template>
      <el-checkbox v-if="w.role === 'idler'" v-model="w.takes_up" class="wide">it takes up the slack</el-checkbox>
    </fieldset>
    <p class="row">
      <el-button v-if="!wheels.some((w) => w.role === 'driver')" type="primary" @click="add('driver')"
        >Add the driver</el-button
      >
      <template v-else>
        <el-button @click="add('driven')">Add a driven wheel</el-button>
        <el-button @click="add('idler')">Add an idler</el-button>
      </template>
    </p>
    <fieldset v-if="path.placed_by === 'tape' && wheels.length > 1">
      <legend>
        Tape, centre to centre
        <span class="soft small">three to each further wheel: the third says on which side it lies</span>
      </legend>
      <div v-for="(t, i) in tapes" :key="i" class="tape">
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
      </div>
      <p class="row wide">
        <el-button @click="path.tapes = [...tapes, tape(1, wheels.length)]">One more tape</el-button>
        <el-checkbox v-model="path.mirrored">it looks the other way round (mirror image)</el-checkbox>
      </p>
    </fieldset>
  </div>
  <KeepBar
    :busy="keeper.busy.value"
    :waiting="keeper.waiting.value"
    :problem="keeper.problem.value"
    :kept="state.dirty.value ? '' : keeper.kept.value"
    :may-write="mayWrite"
    :disabled="!state.dirty.value"
    label="Keep this survey"
    idle="Nothing changed since the survey was kept."
    @keep="keeper.keep('as found', 'layout of the wheels')"
    @retry="keeper.retry"
  />
  <ChangedMeanwhile
    v-if="keeper.problem.value?.status === 409"
    :problem="keeper.problem.value"
    @mine="keeper.keep('as found', 'layout of the wheels', keeper.problem.value?.current_version ?? 1)"
    @theirs="keeper.refresh().then(() => (state.takeKept(), (keeper.problem.value = null)))"
  />
</template>

<style src="./ask.css" scoped></style>
<style scoped>
.slip {
  display: grid;
  gap: 8px;
}
.problem {
  border-left: 4px solid var(--ember);
  padding-left: 12px;
  font-weight: 600;
}
legend {
  display: flex;
  gap: 6px;
  align-items: center;
  width: 100%;
  flex-wrap: wrap;
}
.number {
  display: inline-grid;
  place-items: center;
  width: 26px;
  height: 26px;
  border: 1px solid var(--ink-2);
  border-radius: 50%;
  font-size: 14px;
}
.name {
  flex: 1;
  min-width: 80px;
  min-height: 40px;
  border: 0;
  border-bottom: 1px solid var(--hair);
  background: none;
  color: var(--ink);
  font: inherit;
}
.tool {
  width: 40px;
  height: 40px;
  text-align: center;
}
.tool:disabled {
  opacity: 0.35;
}
.wide {
  grid-column: 1 / -1;
}
.tape {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: 1fr 1fr 1.3fr;
  gap: 8px;
  align-items: end;
}
.tape select {
  min-height: 44px;
  min-width: 0;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  font-size: 14px;
}
</style>
