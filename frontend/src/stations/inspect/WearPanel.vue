<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'

import { api, type Choices, type DriveOut, type Entry, unwrap } from '../../api/client'
import { useMayWrite } from '../../api/queries'
import type { components } from '../../api/schema'
import { useWrite } from '../../api/useWrite'
import { say } from '../../settings'
import CautionStrip from '../../sheet/CautionStrip.vue'
import { blankEntry, usualUnit } from '../../sheet/form'
import KeepBar from '../../sheet/KeepBar.vue'
import MeasureField from '../../sheet/MeasureField.vue'
import ReadingFoot from '../../sheet/ReadingFoot.vue'
import { useAnswer } from '../../sheet/useAnswer'
import { useAnswers } from '../../sheet/useAnswers'
import VerdictNotes from '../../sheet/VerdictNotes.vue'
import { when } from '../../words'
import WordField from '../survey/WordField.vue'

/** How worn: measured against its limit, kept, and when the limit will come by this drive's own readings. */
type Form = Required<components['schemas']['WearForm']>
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const client = useQueryClient()
const mayWrite = useMayWrite()
const empty = (what = ''): Form => ({ what, where: '', quantities: {}, words: {} })
const form = useLocalStorage<Form>(`tuyere-wear-${drive.id}`, empty())
const stamp = ref(0)
const { answer: a } = useAnswer(
  () => [form.value, stamp.value],
  (signal) =>
    unwrap(
      api.POST('/api/drives/{drive_id}/wear/look', {
        params: { path: { drive_id: drive.id } },
        body: form.value,
        signal,
      }),
    ),
)
useAnswers(a)
const whats = computed(() => Object.entries(a.value?.whats ?? {}).map(([value, label]) => ({ value, label })))
const what = computed({
  get: () => a.value?.what ?? '',
  set: (said: string) => (form.value = empty(said)),
})
const at = (key: string, field: string): Entry =>
  form.value.quantities[key] ?? { ...blankEntry(), unit: usualUnit(choices, field) }
const put = (key: string) => (e: Entry) =>
  (form.value = { ...form.value, quantities: { ...form.value.quantities, [key]: e } })
const word = (key: string) =>
  computed({
    get: () => form.value.words[key] ?? '',
    set: (said: string) => (form.value = { ...form.value, words: { ...form.value.words, [key]: said } }),
  })
const count = word('count')
const fixed = word('fixed')
const verdicts = computed(() =>
  a.value?.headline
    ? [
        {
          topic: 'wear',
          tone: a.value.tone as 'good',
          headline: a.value.headline,
          detail: a.value.detail,
          sureness: '',
        },
      ]
    : [],
)
const hourMeter = ref('')
const note = ref('')
const kept = ref('')
const { write, busy, waiting, problem, retry } = useWrite(
  `wear-${drive.id}`,
  (body: Omit<components['schemas']['KeepWear'], 'id'>, key, id) =>
    unwrap(
      api.POST('/api/drives/{drive_id}/wear', {
        params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
        body: { ...body, id },
      }),
    ),
)
async function keep(): Promise<void> {
  const done = await write({ ...form.value, hour_meter: hourMeter.value, note: note.value })
  if (!done) return
  kept.value = `Kept. ${done.headline}.`
  form.value = { ...empty(form.value.what), where: form.value.where }
  hourMeter.value = note.value = ''
  stamp.value += 1
  for (const key of ['log', 'drive']) void client.invalidateQueries({ queryKey: [key, drive.id] })
  void client.invalidateQueries({ queryKey: ['floor'] })
}
const hours = (h: number | null | undefined) => (h === null || h === undefined ? '' : `${Math.round(h / 10) * 10} h`)
const day = (d: string | null | undefined) =>
  d ? new Date(d).toLocaleDateString(undefined, { day: 'numeric', month: 'short', year: 'numeric' }) : ''
const ahead = computed(() => {
  const left = a.value?.hours_left
  const days = a.value?.runs_out
  if (!left) return null
  const [low, middle, high] = left
  return {
    head: middle === 0 ? 'The limit is reached' : `The limit comes in about ${hours(middle)}`,
    band:
      high === null || high === undefined
        ? `at the earliest in ${hours(low)}; how late is open`
        : `between ${hours(low)} and ${hours(high)}, nine times in ten`,
    days: days?.[0] ? `by the hours it runs: ${day(days[0])}${days[2] ? ` to ${day(days[2])}` : ' or later'}` : '',
    before: days?.[0] ? `Look again before ${day(days[0])}.` : '',
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
        <input v-model="form.where" data-entry maxlength="60" placeholder="driver sheave, groove 2" />
      </label>
      <p class="small">Measure {{ say(a.measured) }}. Limit {{ a.limit }}.</p>
      <div class="two">
        <template v-if="a.spans">
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
      <p v-if="a.value" class="is">
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
