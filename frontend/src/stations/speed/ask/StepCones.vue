<script setup lang="ts">
import { computed } from 'vue'

import type { Choices } from '../../../api/client'
import { inSystem } from '../../../settings'
import MeasureField from '../../../sheet/MeasureField.vue'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import WordField from '../../survey/WordField.vue'
import type { ConesAnswer } from '../useCones'
import type { Cones } from '../useSpeedAsk'

/** Step cones: a pair to make, or a pair that is there; and a conversion's ranges before and after. */
const form = defineModel<Cones>({ required: true })
const { found, choices } = defineProps<{ found: ConesAnswer | null; choices: Choices }>()
const belts = computed(() => [{ value: '', label: 'flat belt' }, ...choices.sections])
const q = computed(() => form.value.quantities as Record<string, NonNullable<Cones['quantities'][string]>>)
const w = computed(() => form.value.words as Record<string, string>)
const MODE = [
  { value: 'design', label: 'a pair to make' },
  { value: 'found', label: 'a pair that is there' },
]
const LAY = [
  { value: 'open', label: 'open belt' },
  { value: 'crossed', label: 'crossed belt' },
]
const percent = (share: number) => `${share > 0 ? '+' : ''}${Math.round(share * 100)} %`
</script>

<template>
  <div class="station">
    <div aria-live="polite" class="stack">
      <VerdictNotes v-if="found" :verdicts="found.verdicts" />
    </div>
    <fieldset>
      <legend>The cones</legend>
      <WordField v-model="w.mode!" name="mode" label="They are" :options="MODE" />
      <WordField v-model="w.lay!" name="lay" label="Under an" :options="LAY" />
      <MeasureField v-model="q.centre_distance!" name="centre_distance" label="Centres" hint="shaft to shaft" />
      <MeasureField v-model="q.cone_speed!" name="cone_speed" field="train_speed" label="Driver turns" />
      <WordField v-model="w.section!" name="cone_section" label="Belt" :options="belts" wide />
      <MeasureField
        v-if="!w.section"
        v-model="q.cone_thickness!"
        name="cone_thickness"
        field="flat_thickness"
        label="Belt's thickness"
        hint="flat belt"
      />
      <MeasureField
        v-if="w.mode === 'design'"
        v-model="q.first_driving!"
        name="first_driving"
        field="train_wheel"
        label="Driver, step 1"
        hint="over the rim"
      />
    </fieldset>
    <fieldset v-for="k in form.steps" :key="k">
      <legend>Step {{ k }}</legend>
      <template v-if="w.mode === 'design'">
        <WordField
          v-model="w[`ratio_${k}`]!"
          :name="`ratio_${k}`"
          label="Ratio"
          :placeholder="found?.steps[k - 1]?.ratio ?? (k === 1 || k === form.steps ? '2.5' : 'even')"
        />
        <p v-if="found?.steps[k - 1]" class="aside">
          <span class="small soft">driver on driven</span>
          <b
            ><span class="ember">{{ inSystem(found.steps[k - 1]!.driving) }}</span> on
            <span class="quench">{{ inSystem(found.steps[k - 1]!.driven) }}</span></b
          >
        </p>
      </template>
      <template v-else>
        <MeasureField v-model="q[`driving_${k}`]!" :name="`driving_${k}`" field="train_wheel" label="Driver" />
        <MeasureField v-model="q[`driven_${k}`]!" :name="`driven_${k}`" field="train_wheel" label="Driven" />
      </template>
      <p v-if="found?.steps[k - 1]" class="wide">
        {{ found.steps[k - 1]!.ratio }} : 1<template v-if="found.steps[k - 1]!.speed"
          >, driven <b>{{ inSystem(found.steps[k - 1]!.speed!) }}</b></template
        ><template v-if="w.mode !== 'design' && found.steps[k - 1]!.short_m > 0.0005"
          >; the belt is {{ inSystem(found.steps[k - 1]!.short) }} too long there</template
        >
      </p>
    </fieldset>
    <p class="row">
      <el-button :disabled="form.steps >= 8" @click="form.steps++">Add a step</el-button>
      <el-button :disabled="form.steps <= 1" @click="form.steps--">Take the last one out</el-button>
    </p>
    <details :open="Boolean(q.before_1?.text)">
      <summary>A conversion: speeds before and after, as measured</summary>
      <fieldset>
        <template v-for="k in 3" :key="k">
          <MeasureField
            v-model="q[`before_${k}`]!"
            :name="`before_${k}`"
            field="train_speed"
            :label="`Range ${k}, before`"
          />
          <MeasureField v-model="q[`after_${k}`]!" :name="`after_${k}`" field="train_speed" label="after" />
        </template>
      </fieldset>
      <table v-if="found?.conversions.length" class="why">
        <tbody>
          <tr v-for="(c, k) in found.conversions" :key="k">
            <td>{{ inSystem(c.before) }} → {{ inSystem(c.after) }}</td>
            <td>speed {{ percent(c.speed_change) }}</td>
            <td>torque {{ percent(c.torque) }}</td>
          </tr>
        </tbody>
      </table>
    </details>
  </div>
</template>

<style src="../../survey/ask/ask.css" scoped></style>
<style src="../speed.css" scoped></style>
<style scoped>
.wide {
  grid-column: 1 / -1;
  font-size: 14.5px;
}
.aside b {
  font-size: 16px;
}
summary {
  cursor: pointer;
  min-height: 40px;
  font-weight: 600;
}
</style>
