<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, inject, ref } from 'vue'

import { api, type Choices, type DriveOut, type Entry, unwrap } from '../../../api/client'
import { useMayWrite } from '../../../api/queries'
import { useWrite } from '../../../api/useWrite'
import { inSystem } from '../../../settings'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import { trimmed } from '../../../sheet/form'
import KeepBar from '../../../sheet/KeepBar.vue'
import MeasureField from '../../../sheet/MeasureField.vue'
import { useAnswer } from '../../../sheet/useAnswer'
import { useAnswers } from '../../../sheet/useAnswers'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import WordField from '../../survey/WordField.vue'
import InstrumentRack from '../InstrumentRack.vue'
import ReadingsFile from '../ReadingsFile.vue'
import { blankTrial, speedAskKey } from '../useSpeedAsk'

/** A trial: the same readings before and after one change, side by side, and what they say together. */
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const asked = inject(speedAskKey)!
const mayWrite = useMayWrite()
const client = useQueryClient()
const t = computed(() => asked.value.trial)
const q = computed(() => t.value.quantities as Record<string, Entry>)
const body = computed(() => trimmed({ quantities: t.value.quantities, words: t.value.words }))
const { answer } = useAnswer(body, (signal) => unwrap(api.POST('/api/calc/speed/trial', { body: body.value, signal })))
useAnswers(answer)
const ROWS = [
  { key: 'tach_driver', field: 'tach_driver', label: 'Driver shaft' },
  { key: 'tach_driven', field: 'tach_driven', label: 'Driven shaft' },
  { key: 'pressure', field: 'machine_pressure', label: 'Static pressure' },
  { key: 'amps', field: 'amps', label: 'Motor amps' },
  { key: 'noise', field: 'noise', label: 'Noise, dB(A)' },
]
const FIELD_OF: Record<string, string> = Object.fromEntries(ROWS.map((r) => [r.field, r.key]))
const changes = computed(() => Object.entries(answer.value?.changes ?? {}).map(([value, label]) => ({ value, label })))
const leaks = computed(() => [
  { value: '', label: 'not looked at' },
  ...(answer.value?.leaks ?? []).map((v) => ({ value: v, label: v })),
])
const column = ref<'before' | 'after'>('before')
function put(field: string, text: string, unit: string): void {
  const key = FIELD_OF[field]
  if (key) q.value[`${column.value}_${key}`] = { text, unit: key === 'noise' ? '' : unit, origin: null }
}
const row = (key: string) => answer.value?.rows.find((r) => r.key === key)
const percent = (share: number) => `${share > 0 ? '+' : ''}${(share * 100).toFixed(1)} %`
const told = (key: string) => (row(key)!.real ? percent(row(key)!.change!) : 'the same')
const kept = ref('')
const { write, busy, waiting, problem, retry } = useWrite(
  `trial-${drive.id}`,
  (sent: { trial: typeof body.value; note: string }, key, id) =>
    unwrap(
      api.POST('/api/drives/{drive_id}/trials', {
        params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
        body: { ...sent, id },
      }),
    ),
)
async function keep(): Promise<void> {
  const done = await write({ trial: body.value, note: t.value.note })
  if (!done) return
  kept.value = `Kept. ${done.headline}.`
  asked.value.trial = blankTrial()
  await client.invalidateQueries({ queryKey: ['log', drive.id] })
}
const anything = computed(() => answer.value?.rows.some((r) => r.before && r.after) ?? false)
</script>

<template>
  <div class="station">
    <div aria-live="polite" class="stack">
      <VerdictNotes v-if="answer" :verdicts="answer.verdicts" />
    </div>
    <CautionStrip :cautions="choices.cautions.speed" state="Running, guard on." />
    <WordField v-model="t.words.change!" name="change" label="The one change between" :options="changes" />
    <fieldset v-for="r in ROWS" :key="r.key">
      <MeasureField
        v-for="at in ['before', 'after'] as const"
        :key="at"
        v-model="q[`${at}_${r.key}`]!"
        :name="`${at}_${r.key}`"
        :field="r.field"
        :label="r.label"
        :hint="at === 'after' && row(r.key)?.change != null ? `after: ${told(r.key)}` : at"
      />
    </fieldset>
    <fieldset>
      <WordField v-model="t.words.before_leak!" name="before_leak" label="Leak, before" :options="leaks" />
      <WordField v-model="t.words.after_leak!" name="after_leak" label="Leak, after" :options="leaks" />
    </fieldset>
    <p class="row" role="radiogroup" aria-label="Which column a reading goes into">
      <label v-for="at in ['before', 'after'] as const" :key="at" class="column"
        ><input v-model="column" type="radio" :value="at" name="column" /> read into “{{ at }}”</label
      >
    </p>
    <InstrumentRack :drive="drive" :to="`the ${column} column`" @take="put" />
    <ReadingsFile @take="put" />
    <p v-if="answer?.rows.some((r) => r.before && r.after)" class="sr">
      {{
        answer.rows
          .filter((r) => r.before && r.after)
          .map((r) => `${r.label}: ${inSystem(r.before!)} then ${inSystem(r.after!)}`)
          .join('; ')
      }}
    </p>
    <label class="note">
      <span>Note</span>
      <textarea v-model="t.note" rows="2" maxlength="2000" data-entry />
    </label>
  </div>
  <KeepBar
    :busy="busy"
    :waiting="waiting"
    :problem="problem"
    :kept="anything ? '' : kept"
    :may-write="mayWrite"
    :disabled="!anything"
    label="Keep this trial"
    idle="Read something both before and after."
    @keep="keep"
    @retry="retry"
  />
</template>

<style src="../../survey/ask/ask.css" scoped></style>
<style src="../speed.css" scoped></style>
<style scoped>
.column {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-height: 40px;
}
.row {
  display: flex;
  gap: 18px;
}
.note {
  display: grid;
  gap: 3px;
  font-size: 13.5px;
  font-weight: 560;
}
textarea {
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  padding: 8px 10px;
  font: inherit;
}
</style>
