<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, inject, provide, ref, watch } from 'vue'

import { api, type Choices, type DriveOut, unwrap } from '../../../api/client'
import { useFound, useMayWrite } from '../../../api/queries'
import { useWrite } from '../../../api/useWrite'
import { doneKey } from '../../../open/useOpen'
import { say } from '../../../settings'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import { trimmed } from '../../../sheet/form'
import FigureValue from '../../../sheet/FigureValue.vue'
import KeepBar from '../../../sheet/KeepBar.vue'
import { useAnswer } from '../../../sheet/useAnswer'
import ShortSets from '../../../sheet/ShortSets.vue'
import { answersKey, moreFiguresKey, sheetKey } from '../../../sheet/useSheet'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import { dateText, dayFromNow } from '../../../words'
import WordField from '../WordField.vue'

/** A get-home fix: what is on in place of the right set, what it carries, and by when it comes off. */
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const state = inject(sheetKey)!
const client = useQueryClient()
const mayWrite = useMayWrite()
const { data: found } = useFound(() => drive.id)
const fixSection = ref('')
const fixCount = ref('')
const fixBelt = ref('')
const fixAs = ref('')
/** The drive's own belt has several ribs. */
const joined = computed(() => state.sheet.value?.in_bands ?? false)
const fitted = inject(doneKey)!
const offBy = ref('')
const offTouched = ref(false)
const asked = computed(() => ({
  survey: state.form.value.survey,
  machine_is: state.form.value.machine_is,
  fix_section: fixSection.value,
  fix_count: fixCount.value,
  fix_belt: fixBelt.value,
  fix_singles: fixAs.value === 'singles',
}))
const { answer } = useAnswer(asked, (signal) =>
  unwrap(api.POST('/api/calc/get-home', { body: trimmed(asked.value), signal })),
)
const fix = computed(() => answer.value?.fix)
const problems = computed(
  () => new Map((fixCount.value ? (answer.value?.problems ?? []) : []).map((p) => [p.field, p])),
)
provide(answersKey, { note: () => undefined, problem: (name) => problems.value.get(name) })

watch(fix, (now) => {
  if (now && !offTouched.value) offBy.value = dayFromNow(now.days)
})
const kept = ref('')
const { write, busy, waiting, problem, retry } = useWrite(
  `fix-${drive.id}`,
  (body: { fix: typeof asked.value; off_by: string }, key, id) =>
    unwrap(
      api.POST('/api/drives/{drive_id}/get-home', {
        params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
        body: { ...body, id },
      }),
    ),
)
const off = useWrite(`fix-off-${drive.id}`, (body: { fix: string; row_version: number }, key) =>
  unwrap(
    api.POST('/api/get-home/{fix_id}/off', {
      params: { path: { fix_id: body.fix }, header: { 'Idempotency-Key': key } },
      body: { row_version: body.row_version },
    }),
  ),
)
async function refresh(): Promise<void> {
  await Promise.all(
    [['found', drive.id], ['drive', drive.id], ['log', drive.id], ['floor']].map((queryKey) =>
      client.invalidateQueries({ queryKey }),
    ),
  )
}
async function keep(): Promise<void> {
  const done = await write(trimmed({ fix: asked.value, off_by: offBy.value }))
  if (!done) return
  kept.value = `Recorded as temporary. Due by ${dateText(offBy.value)}: it stands on the floor.`
  fixCount.value = fixSection.value = fixBelt.value = fixAs.value = ''
  offTouched.value = false
  await refresh()
}
async function takeOff(id: string, row_version: number): Promise<void> {
  if (await off.write({ fix: id, row_version })) {
    fitted('new set')
    kept.value = 'The right belts are on again: the due is done.'
    await refresh()
  }
}
const more = inject(moreFiguresKey)!
watch(fix, (now) => (more.value = Object.fromEntries((now?.figures ?? []).map((f) => [f.key, f]))))
const share = computed(() => fix.value?.figures.find((f) => f.key === 'share_of_set'))
const load = computed(() => fix.value?.figures.find((f) => f.key === 'share_of_load'))
</script>

<template>
  <div class="station" data-panel>
    <section v-for="f in found?.fixes" :key="f.id" class="on" aria-label="Get-home fix on this drive">
      <h3>
        <span aria-hidden="true" class="ember">▲</span>
        On now, temporary: {{ f.what }}
      </h3>
      <p>{{ f.share_text }}. {{ say(f.run) }}</p>
      <p>
        Off by
        <b>{{ dateText(f.off_by) }}</b>
      </p>
      <el-button v-if="mayWrite" :loading="off.busy.value" @click="takeOff(f.id, f.row_version)">
        The right belts are on again
      </el-button>
      <p v-if="off.problem.value" class="small ember" role="alert">Not done: {{ off.problem.value.detail }}</p>
    </section>
    <div class="slip" aria-live="polite">
      <VerdictNotes v-if="fix" :verdicts="fix.verdicts" />
      <template v-else>
        <h3>Say what is on to get home</h3>
        <p class="soft">A in a B groove, or one or two belts of three: it says what that carries and asks you back.</p>
      </template>
      <p v-if="problems.get('section')" class="ember">{{ say(problems.get('section')!.sentence) }}</p>
    </div>
    <CautionStrip :cautions="choices.cautions.survey" state="Machine isolated; guard back on before it runs." />
    <fieldset>
      <legend>On now</legend>
      <WordField
        v-model="fixSection"
        name="fix_section"
        label="Belt section"
        :options="[{ value: '', label: 'the drive’s own' }, ...choices.sections]"
      />
      <WordField v-model="fixCount" name="fix_count" label="How many" placeholder="1, 2 …" />
      <WordField
        v-model="fixBelt"
        name="fix_belt"
        label="Name on the belt from the shelf"
        placeholder="B81, or - unknown"
      />
      <WordField
        v-if="joined"
        v-model="fixAs"
        name="fix_as"
        label="They are"
        :options="[
          { value: '', label: 'joined belts, as fitted' },
          { value: 'singles', label: 'single belts, one a groove' },
        ]"
      />
    </fieldset>
    <p v-if="!fix && state.sheet.value?.short_not" class="ember">{{ say(state.sheet.value.short_not) }}</p>
    <ShortSets
      v-if="!fix"
      pick
      :short="state.sheet.value?.short ?? []"
      @pick="((fixSection = ''), (fixCount = String($event)))"
    />
    <template v-if="fix">
      <p class="run">
        <span class="soft small">How hard to run meanwhile</span>
        <b>{{ say(fix.run) }}</b>
      </p>
      <p class="row figures">
        <FigureValue :figure="load" label="Of the design load" doubt />
        <FigureValue :figure="share" label="Of the full set" />
      </p>
      <label class="by">
        <span>Must come off by</span>
        <input v-model="offBy" type="date" data-entry @input="offTouched = true" />
      </label>
    </template>
  </div>
  <KeepBar
    :busy="busy"
    :waiting="waiting"
    :problem="problem"
    :kept="kept"
    :may-write="mayWrite"
    :disabled="!fix"
    label="Record as temporary, raise the due"
    idle="Nothing to record yet."
    @keep="keep"
    @retry="retry"
  />
</template>

<style src="./ask.css" scoped></style>
<style scoped>
.slip {
  display: grid;
  gap: 8px;
}
.on {
  border: 1px solid var(--ember);
  border-radius: 3px;
  padding: 10px 12px;
  display: grid;
  gap: 6px;
}
.run {
  display: grid;
}
.figures {
  gap: 26px;
}
.by {
  display: grid;
  gap: 3px;
  font-size: 13.5px;
  font-weight: 560;
}
.by input {
  min-height: 44px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 10px;
  font: inherit;
  font-size: 16px;
}
</style>
