<script setup lang="ts">
import { computed } from 'vue'

import { inSystem } from '../../../settings'
import MeasureField from '../../../sheet/MeasureField.vue'
import { useAnswers } from '../../../sheet/useAnswers'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import WordField from '../../survey/WordField.vue'
import type { Train, UnknownAnswer } from '../useUnknown'

/** Any unknown of a train: leave one thing out, and it follows. A speed may be a range. */
const form = defineModel<Train>({ required: true })
const { found } = defineProps<{ found: UnknownAnswer | null }>()
useAnswers(computed(() => found))
const q = computed(() => form.value.quantities)
const w = computed(() => form.value.words)
const wheel = (k: number, role: string) => found?.wheels.find((x) => x.stage === k && x.role === role)
</script>

<template>
  <div class="station">
    <div aria-live="polite" class="stack">
      <VerdictNotes v-if="found" :verdicts="found.verdicts" />
    </div>
    <fieldset>
      <legend>Leave out what you want to know</legend>
      <div class="wide">
        <MeasureField
          v-model="q.first_speed!"
          name="first_speed"
          field="train_speed"
          label="First shaft"
          hint="or a range"
        />
      </div>
      <div class="wide">
        <MeasureField
          v-model="q.last_speed!"
          name="last_speed"
          field="train_speed"
          label="Last shaft"
          hint="or a range"
        />
      </div>
      <p v-if="found?.shafts.length" class="wide small soft">
        <template v-for="(s, k) in found.shafts" :key="k"
          >{{ k ? ' → ' : '' }}<b :class="{ ember: s.found }">{{ inSystem(s) }}</b></template
        >
      </p>
      <el-checkbox v-model="form.teeth">counted in teeth</el-checkbox>
      <WordField v-if="!form.teeth" v-model="w.slip!" name="slip" label="Slip, percent" placeholder="0" />
    </fieldset>
    <fieldset v-for="k in form.stages" :key="k">
      <legend>Stage {{ k }}</legend>
      <template v-if="form.teeth">
        <WordField v-model="w[`driving_${k}`]!" :name="`driving_${k}`" label="Driving, teeth" />
        <WordField v-model="w[`driven_${k}`]!" :name="`driven_${k}`" label="Driven, teeth" />
      </template>
      <template v-else>
        <MeasureField v-model="q[`driving_${k}`]!" :name="`driving_${k}`" field="train_wheel" label="Driving wheel" />
        <MeasureField v-model="q[`driven_${k}`]!" :name="`driven_${k}`" field="train_wheel" label="Driven wheel" />
      </template>
      <WordField
        v-model="w[`ratio_${k}`]!"
        :name="`ratio_${k}`"
        label="or its ratio"
        :placeholder="found?.ratios[k - 1] ?? '2.4'"
      />
      <div class="got">
        <template v-for="role in ['driving', 'driven']" :key="role">
          <p v-if="wheel(k, role)" :class="{ ember: wheel(k, role)!.found }">
            {{ role }} <b>{{ inSystem(wheel(k, role)!) }}</b>
            <span v-if="wheel(k, role)!.rim_us" class="small soft">
              rim {{ inSystem({ us: wheel(k, role)!.rim_us, si: wheel(k, role)!.rim_si }) }}</span
            >
            <span v-for="z in wheel(k, role)!.whole" :key="z.teeth" class="small"> · {{ z.teeth }}: {{ z.speed }}</span>
          </p>
        </template>
      </div>
    </fieldset>
    <p class="row">
      <el-button :disabled="form.stages >= 4" @click="form.stages++">Add a stage</el-button>
      <el-button :disabled="form.stages <= 1" @click="form.stages--">Take the last one out</el-button>
    </p>
    <details :open="Boolean(w.marks_driving)">
      <summary>Or count turns: a mark on both wheels, turned by hand</summary>
      <p class="small soft">
        Isolated and locked. The more turns, the nearer the ratio; each end is read to an eighth.
      </p>
      <fieldset>
        <WordField v-model="w.marks_driving!" name="marks_driving" label="Driving wheel, turns" placeholder="20" />
        <WordField v-model="w.marks_driven!" name="marks_driven" label="Driven wheel, turns" placeholder="8.5" />
      </fieldset>
    </details>
  </div>
</template>

<style src="../../survey/ask/ask.css" scoped></style>
<style scoped>
.wide {
  grid-column: 1 / -1;
}
.got p {
  font-size: 14.5px;
}
summary {
  cursor: pointer;
  min-height: 40px;
  font-weight: 600;
}
</style>
