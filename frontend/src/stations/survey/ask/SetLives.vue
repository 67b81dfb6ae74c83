<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, inject, provide, ref } from 'vue'

import { api, type DriveOut, type Entry, unwrap } from '../../../api/client'
import { useFound, useMayWrite } from '../../../api/queries'
import { useWrite } from '../../../api/useWrite'
import { trimmed } from '../../../sheet/form'
import MeasureField from '../../../sheet/MeasureField.vue'
import { answersKey, sheetKey } from '../../../sheet/useSheet'
import { dateText, dayFromNow } from '../../../words'

/** How long the sets lasted: kept one by one; two early deaths in a row raise a finding. */
const { drive, duties } = defineProps<{ drive: DriveOut; duties: string[] }>()
const sheet = inject(sheetKey)!
const client = useQueryClient()
const mayWrite = useMayWrite()
const { data: found } = useFound(() => drive.id)
const hours = ref<Entry>({ text: '', unit: 'h', origin: null })
const endedOn = ref(dayFromNow(0))
const why = ref('')
const said = ref('')
const { write, busy, problem } = useWrite(`life-${drive.id}`, (body: object, key, id) =>
  unwrap(
    api.POST('/api/drives/{drive_id}/lives', {
      params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
      body: { ...(body as { hours: Entry; ended_on: string; why: string }), id },
    }),
  ),
)
const wrong = computed(() => new Map((problem.value?.errors ?? []).map((e) => [e.field, e.detail])))
provide(answersKey, {
  note: () => undefined,
  problem: (name) =>
    wrong.value.has(name) ? { field: name, sentence: wrong.value.get(name)!, offer: null } : undefined,
})
async function add(): Promise<void> {
  const done = await write(
    trimmed({ hours: hours.value, ended_on: endedOn.value, why: why.value, survey: sheet.form.value.survey, duties }),
  )
  if (!done) return
  hours.value = { ...hours.value, text: '' }
  why.value = ''
  said.value = done.raised ? 'Kept. Sets die early here: a finding is raised on the drive.' : 'Kept.'
  await Promise.all(
    [['found', drive.id], ['drive', drive.id], ['log', drive.id], ['floor']].map((queryKey) =>
      client.invalidateQueries({ queryKey }),
    ),
  )
}
</script>

<template>
  <fieldset>
    <legend>
      How long the last sets lasted
      <span class="soft small">two early deaths raise a finding</span>
    </legend>
    <ul v-if="found?.lives.length" class="small">
      <li v-for="life in found.lives" :key="life.id">
        <b>{{ life.hours_h }} h</b>
        to {{ dateText(life.ended_on) }}
        <span class="soft">{{ life.why }}</span>
      </li>
    </ul>
    <template v-if="mayWrite">
      <MeasureField v-model="hours" name="set_hours" label="A set lasted" />
      <label class="plain">
        Came off on
        <input v-model="endedOn" type="date" data-entry />
      </label>
      <label class="plain wide">
        What ended it
        <input v-model="why" maxlength="400" data-entry placeholder="glazed, turned over, snapped …" />
      </label>
      <p class="row wide">
        <el-button :loading="busy" :disabled="!hours.text" @click="add">Keep this life</el-button>
        <span v-if="problem" class="small ember" role="alert">{{ problem.detail }}</span>
        <span v-else-if="said" class="small" role="status">{{ said }}</span>
      </p>
    </template>
  </fieldset>
</template>

<style src="./ask.css" scoped></style>
<style scoped>
ul {
  grid-column: 1 / -1;
  margin: 0;
  padding-left: 1.1em;
}
.wide {
  grid-column: 1 / -1;
}
.plain {
  display: grid;
  gap: 3px;
  font-size: 13.5px;
  font-weight: 560;
}
.plain input {
  min-height: 44px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 10px;
  font: inherit;
  font-size: 16px;
  width: 100%;
}
</style>
