<script setup lang="ts">
import { computed, inject } from 'vue'
import { useRoute } from 'vue-router'

import type { Choices } from '../../api/client'
import { useMayWrite } from '../../api/queries'
import { say } from '../../settings'
import CautionStrip from '../../sheet/CautionStrip.vue'
import KeepBar from '../../sheet/KeepBar.vue'
import MeasureField from '../../sheet/MeasureField.vue'
import ReadingFoot from '../../sheet/ReadingFoot.vue'
import { useAnswers } from '../../sheet/useAnswers'
import VerdictNotes from '../../sheet/VerdictNotes.vue'
import { when } from '../../words'
import WordField from '../survey/WordField.vue'
import { wearKey } from './useWear'

/** How worn: measured against its limit, kept, and when the limit will come by this drive's own readings. */
const { drive, choices } = defineProps<{ drive: { id: string }; choices: Choices }>()
const mayWrite = useMayWrite()
const desk = inject(wearKey)!
const { form, answer: a, what, at, put, hourMeter, note, kept, keep, busy, waiting, problem, retry } = desk
useAnswers(a)
const whats = computed(() => Object.entries(a.value?.whats ?? {}).map(([value, label]) => ({ value, label })))
const count = desk.word('count')
const fixed = desk.word('fixed')
const seen = desk.word('seen')
const chainCount = desk.word('chain_count')
const SEEN = [
  { key: 'no', label: 'Not there' },
  { key: 'begins', label: 'It begins' },
  { key: 'yes', label: 'There' },
]
/** The address may name what to measure: from a round, or a promise. */
const asked = useRoute().query.what
if (typeof asked === 'string' && asked && asked !== form.value.what) what.value = asked
const verdicts = computed(() =>
  a.value?.headline
    ? [
        {
          topic: 'wear',
          tone: a.value.tone as 'good',
          headline: a.value.headline,
          detail: a.value.detail,
          sureness: '',
          standing: false,
        },
      ]
    : [],
)
const hours = (h: number | null | undefined) => (h === null || h === undefined ? '' : `${Math.round(h / 10) * 10} h`)
const day = (d: string | null | undefined) =>
  d ? new Date(d).toLocaleDateString(undefined, { day: 'numeric', month: 'short', year: 'numeric' }) : ''
const ahead = computed(() => {
  const left = a.value?.hours_left
  const days = a.value?.runs_out
  if (!left) return null
  const [low, middle, high] = left
  return {
    head:
      middle === 0 ? 'By its readings the limit may be reached by now' : `The limit comes in about ${hours(middle)}`,
    band:
      high === null || high === undefined
        ? `at the earliest in ${hours(low)}; how late is open`
        : `between ${hours(low)} and ${hours(high)}, nine times in ten`,
    days: days?.[0] ? `by the hours it runs: ${day(days[0])}${days[2] ? ` to ${day(days[2])}` : ' or later'}` : '',
    before: middle === 0 ? 'Measure it today.' : days?.[0] ? `Look again before ${day(days[0])}.` : '',
  }
})
</script>

<template>
  <div class="station">
    <VerdictNotes v-if="verdicts.length" :verdicts="verdicts" />
    <div v-else class="lead">
      <h3>Measure it, and it stands against its limit</h3>
    </div>
    <CautionStrip :cautions="choices.cautions.tension" state="Machine isolated." />
    <template v-if="a">
      <WordField v-model="what" name="what" label="What is worn" :options="whats" />
      <label class="own">
        <span>Where</span>
        <input
          v-model="form.where"
          data-entry
          maxlength="60"
          :placeholder="a.places[0]?.where ?? 'first third of the chain'"
        />
      </label>
      <p class="small">
        {{ a.unit === 'look' ? 'Look' : 'Measure' }} {{ say(a.measured) }}, with {{ say(a.tool) }}.<template
          v-if="a.unit !== 'look'"
        >
          Limit {{ a.limit }}.</template
        >
      </p>
      <div v-if="a.unit === 'look'" class="three" role="group" :aria-label="a.whats[a.what]">
        <button v-for="x in SEEN" :key="x.key" type="button" :aria-pressed="seen === x.key" @click="seen = x.key">
          {{ x.label }}
        </button>
      </div>
      <div v-else class="two">
        <WordField v-if="a.unit === 'count'" v-model="count" name="count" label="How many" placeholder="2" />
        <template v-else-if="a.spans">
          <MeasureField
            :model-value="at('span', 'pitch_span')"
            name="span"
            field="pitch_span"
            label="Length over many pitches"
            @update:model-value="put('span')($event)"
          />
          <WordField v-model="count" name="count" label="How many pitches" placeholder="24" />
          <MeasureField
            v-if="!a.pitch_known"
            :model-value="at('pitch', 'pitch_span')"
            name="pitch"
            field="pitch_span"
            label="One pitch, new"
            @update:model-value="put('pitch')($event)"
          />
          <template v-if="a.what === 'dogs'">
            <MeasureField
              :model-value="at('chain_span', 'pitch_span')"
              name="chain_span"
              field="pitch_span"
              label="Conveyor chain: length"
              @update:model-value="put('chain_span')($event)"
            />
            <WordField v-model="chainCount" name="chain_count" label="over how many pitches" placeholder="10" />
            <MeasureField
              :model-value="at('chain_pitch', 'pitch_span')"
              name="chain_pitch"
              field="pitch_span"
              label="its pitch, new"
              @update:model-value="put('chain_pitch')($event)"
            />
          </template>
          <WordField
            v-if="a.what === 'chain'"
            v-model="fixed"
            name="fixed"
            label="Centres"
            :options="[
              { value: '', label: 'with a take-up' },
              { value: 'yes', label: 'fixed, timed or critical' },
            ]"
          />
        </template>
        <MeasureField
          v-else
          :key="a.field"
          :model-value="at('value', a.field)"
          name="value"
          :field="a.field"
          label="Worn by"
          @update:model-value="put('value')($event)"
        />
      </div>
      <p v-if="a.lacks" class="small soft">{{ a.lacks }}</p>
      <p v-if="a.value && a.unit !== 'look'" class="is">
        <b>{{ a.value }}</b><span class="soft small"> of {{ a.limit }}</span>
      </p>
      <section v-if="ahead" class="ahead" aria-label="When the limit comes">
        <b>{{ ahead.head }}</b>
        <span class="small"
          >{{ ahead.band }}<template v-if="ahead.days">; {{ ahead.days }}</template
          >.</span
        >
        <span class="small">{{ ahead.before }}</span>
      </section>
      <p v-else-if="a.refused" class="small soft">{{ a.refused }}</p>
      <ReadingFoot v-if="a.share !== null" v-model:hours="hourMeter" v-model:note="note" :problem="problem" />
      <ol v-if="a.kept.length" class="kept" aria-label="Measured before">
        <li v-for="k in a.kept" :key="k.id">
          <span
            >{{ when(k.at) }}<span v-if="k.where" class="soft">, {{ k.where }}</span></span
          >
          <span
            ><b>{{ k.text }}</b>
            <span class="level" aria-hidden="true"
              ><i :style="{ width: `${Math.min(1, k.share) * 100}%` }" :class="{ out: k.share >= 1 }" /></span
          ></span>
        </li>
      </ol>
      <section v-if="a.whole_set.length" class="ahead" aria-label="The whole set">
        <b>Renew it as a set</b>
        <span class="small"
          >A new belt or chain on a worn wheel wears as fast as the old one, and a new wheel under a worn one’s belt
          too.</span
        >
        <ul>
          <li v-for="w in a.whole_set" :key="w">{{ w }}</li>
        </ul>
        <router-link :to="`/drives/${drive.id}/counter`" class="small">To the counter slip</router-link>
      </section>
      <p class="small soft">{{ a.source }}</p>
    </template>
  </div>
  <KeepBar
    :busy="busy"
    :waiting="waiting"
    :problem="problem"
    :kept="a?.share !== null ? '' : kept"
    :may-write="mayWrite"
    :disabled="a?.share === null || a?.share === undefined"
    :idle="a?.share === null || a?.share === undefined ? 'Measure it first.' : ''"
    label="Keep this"
    @keep="keep()"
    @retry="retry"
  />
</template>

<style scoped>
.station {
  padding: 16px 18px 18px;
  display: grid;
  gap: 12px;
}
.lead {
  border-left: 4px solid var(--ink-2);
  padding-left: 12px;
}
h3 {
  font-size: 19px;
}
.own {
  display: grid;
  gap: 3px;
  font-size: 13.5px;
  font-weight: 560;
}
.own input {
  min-height: 44px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  font-size: 16px;
  padding: 0 10px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 14px;
  align-items: start;
}
.three {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}
.three button {
  min-height: 56px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  font-size: 17px;
  font-weight: 600;
  cursor: pointer;
}
.three [aria-pressed='true'] {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 2px var(--ink);
}
.ahead ul {
  margin: 2px 0;
  padding-left: 18px;
}
.is b {
  font-size: 22px;
  font-stretch: 76%;
}
.ahead {
  border: 1px solid var(--ink);
  border-radius: 3px;
  padding: 10px 12px;
  display: grid;
  gap: 3px;
}
.kept {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
  font-size: 14px;
}
.kept li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
.level {
  display: inline-block;
  width: 90px;
  height: 6px;
  background: var(--hair-2);
  vertical-align: middle;
}
.level i {
  display: block;
  height: 100%;
  background: var(--ink);
}
.level .out {
  background: var(--ember);
}
</style>
