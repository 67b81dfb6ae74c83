<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, inject, provide, ref } from 'vue'
import { useRouter } from 'vue-router'

import { api, type Choices, type DriveOut, type FindForm, unwrap } from '../../../api/client'
import { useFound, useMayWrite } from '../../../api/queries'
import { useWrite } from '../../../api/useWrite'
import { say } from '../../../settings'
import { trimmed } from '../../../sheet/form'
import KeepBar from '../../../sheet/KeepBar.vue'
import { useAnswer } from '../../../sheet/useAnswer'
import { answersKey, sheetKey } from '../../../sheet/useSheet'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import { when } from '../../../words'
import { findKey } from '../useFind'
import WordField from '../WordField.vue'
import SetLives from './SetLives.vue'
import SlipPaper from './SlipPaper.vue'

/** The counter slip: the belt found, what the drive does to its belts, and the one paper to take to the shop. */
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const router = useRouter()
const sheet = inject(sheetKey)!
const find = inject(findKey)!
const client = useQueryClient()
const mayWrite = useMayWrite()
const { data: found } = useFound(() => drive.id)
const survey = computed(() => sheet.form.value.survey)
const lives = computed(() => (found.value?.lives ?? []).map((x) => x.hours_h))
/** A dash for a belt that is gone is no name to ask for. */
const named = computed(() => sheet.sheaves.value.choices.belt.replace(/^\s*[-?]\s*$/, '') ?? '')
const belt = computed({
  get: () => find.chosen.value || found.value?.cross_reference?.designation || named.value,
  set: (text) => (find.chosen.value = text),
})
const asked = computed(() => ({
  belt: belt.value,
  survey: survey.value,
  joined: find.joined.value,
  slack_clutch: find.slackClutch.value,
  duties: find.duties.value,
  lives_h: lives.value,
  part_number: drive.part_number,
}))
const { answer, refused, unreachable, again } = useAnswer(asked, (signal) =>
  unwrap(api.POST('/api/calc/counter-slip', { body: trimmed(asked.value), signal })),
)
const graded = useAnswer(asked, (signal) =>
  unwrap(
    api.POST('/api/calc/grade', {
      body: trimmed({ section: '', survey: survey.value, duties: find.duties.value, lives_h: lives.value }),
      signal,
    }),
  ),
)
const slip = computed(() => (refused.value ? null : answer.value?.slip))
provide(answersKey, {
  note: () => undefined,
  problem: (name) =>
    name === 'counter_belt' && refused.value && belt.value
      ? { field: name, sentence: refused.value.problem.detail, offer: null }
      : undefined,
})
const kept = ref('')
const notTaken = ref('')
const { write, busy, waiting, problem, retry } = useWrite(
  `slip-${drive.id}`,
  (body: { asked: typeof asked.value; find: FindForm }, key, id) =>
    unwrap(
      api.POST('/api/drives/{drive_id}/slips', {
        params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
        body: { ...body, id },
      }),
    ),
)
/** The belt found becomes the survey's own, section and all; it is kept there like any other entry. */
async function intoSurvey(): Promise<void> {
  notTaken.value = ''
  try {
    const named = await unwrap(api.POST('/api/calc/designation', { body: { text: belt.value } }))
    const choices = sheet.sheaves.value.choices
    choices.section = named.section
    choices.belt = named.designation
  } catch (error) {
    notTaken.value = (error as Error).message
    return
  }
  await router.push(`/drives/${drive.id}/survey`)
}
async function keep(): Promise<void> {
  const done = await write(trimmed({ asked: asked.value, find: find.form.value }))
  if (!done) return
  kept.value = `Kept on the drive: ask for ${slip.value?.headline ?? belt.value}.`
  await Promise.all(
    [
      ['found', drive.id],
      ['log', drive.id],
    ].map((queryKey) => client.invalidateQueries({ queryKey })),
  )
}
</script>

<template>
  <div class="station" data-panel>
    <fieldset>
      <legend>Ask for</legend>
      <WordField v-model="belt" name="counter_belt" label="Belt" placeholder="from “Which belt?”, or B81" />
      <div class="checks">
        <el-checkbox v-model="find.joined.value">joined (one back over several)</el-checkbox>
      </div>
    </fieldset>
    <SlipPaper v-if="slip" :slip="slip" />
    <p v-if="slip && mayWrite">
      <el-button @click="intoSurvey">Write {{ slip.headline }} into the survey</el-button>
      <span v-if="notTaken" class="small ember" role="alert">{{ notTaken }} Try again.</span>
    </p>
    <p v-else-if="!belt" class="soft">
      Find the belt first: measure it under “Which belt?”, or take a length under “No belt”, then come back.
    </p>
    <p v-if="unreachable" class="ember small" role="status">
      No answer from the server: the slip shown is the last one.
      <button class="bare" type="button" @click="again()"><u>Ask again</u></button>
    </p>
    <section v-if="found?.slip" class="last">
      <p>
        Last slip kept:
        <b>{{ found.slip.designation }}</b>
        <span class="soft small">{{ found.slip.who }}, {{ when(found.slip.made_at) }}</span>
      </p>
      <a class="pdf" :href="`/api/slips/${found.slip.id}/pdf`" target="_blank" rel="noopener">Open as PDF to print</a>
    </section>
    <fieldset>
      <legend>What the drive does to its belts</legend>
      <el-checkbox-group v-model="find.duties.value" class="duties">
        <el-checkbox v-for="d in choices.duties" :key="d.value" :value="d.value">{{ say(d.label) }}</el-checkbox>
      </el-checkbox-group>
    </fieldset>
    <div v-if="graded.answer.value?.grade" class="stack" aria-live="polite">
      <VerdictNotes :verdicts="graded.answer.value.grade.verdicts" />
    </div>
    <SetLives :drive="drive" :duties="find.duties.value" />
  </div>
  <KeepBar
    :busy="busy"
    :waiting="waiting"
    :problem="problem"
    :kept="kept"
    :may-write="mayWrite"
    :disabled="!slip"
    label="Keep this slip on the drive"
    idle="No belt named yet."
    @keep="keep"
    @retry="retry"
  />
</template>

<style src="./ask.css" scoped></style>
<style scoped>
.checks {
  align-self: center;
}
.duties {
  grid-column: 1 / -1;
  display: grid;
}
.duties :deep(.el-checkbox) {
  height: auto;
  min-height: 40px;
  white-space: normal;
  margin-right: 0;
}
.last {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding-top: 10px;
}
.pdf {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  font-weight: 600;
}
</style>
