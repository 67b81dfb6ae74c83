<script setup lang="ts">
import { computed, inject, provide } from 'vue'

import type { Choices, DriveOut, Layout } from '../../../api/client'
import { inSystem, say } from '../../../settings'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import type { WheelEntry } from '../../../sheet/form'
import MeasureField from '../../../sheet/MeasureField.vue'
import { answersKey, sheetKey } from '../../../sheet/useSheet'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import KeepSurvey from '../../survey/KeepSurvey.vue'
import WordField from '../../survey/WordField.vue'

/** What each stage of a train carries, wheel by wheel; and another wheel tried in it. */
const { drive, choices, layout = null } = defineProps<{ drive: DriveOut; choices: Choices; layout?: Layout | null }>()
const state = inject(sheetKey)!
const train = computed(() => state.train.value)
const missing = computed(() => (train.value?.wanted ?? []).map((w) => choices.wanted[w]?.says ?? w))
/** The layout says what is wrong with its own fields. */
provide(answersKey, {
  note: (name) => layout?.notes[name] ?? state.sheet.value?.notes[name],
  problem: (name) => layout?.problems.find((p) => p.field === name) ?? state.problems.value.get(name),
})
const wheels = computed(() => state.form.value.survey.layout.wheels as WheelEntry[])
const loaded = (role: string) => role !== 'idler'
</script>

<template>
  <div v-if="train" class="station train">
    <VerdictNotes :verdicts="train.stages.flatMap((s) => s.verdicts)" />
    <p v-if="missing.length" class="ember" role="status">Survey needs {{ missing.join(', ') }}.</p>
    <CautionStrip :cautions="choices.cautions.size" state="Machine isolated." />

    <section v-for="s in train.stages" :key="s.number" :aria-label="`Stage ${s.number}`">
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
  <KeepSurvey v-if="state.dirty.value" :drive="drive" usual="another wheel in a stage" />
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
