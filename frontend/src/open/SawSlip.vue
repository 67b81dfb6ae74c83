<script setup lang="ts">
import { computed, reactive, ref, shallowRef } from 'vue'

import { api, unwrap } from '../api/client'
import { useWrite } from '../api/useWrite'
import { mark, STATES, useRefresh, useSigns } from './useOpen'

/** Saying what one saw: one tap on a sign keeps it; words and the state of the machine may follow. */
const open = defineModel<boolean>({ required: true })
const { drive } = defineProps<{ drive: { id: string; machine: string; name: string } }>()
const { data, error, refetch } = useSigns()
const refresh = useRefresh()
const signs = computed(() => data.value?.signs ?? [])
const states = computed(() => ['', ...(data.value?.states ?? [])])
type Said = { id: string; what: string; row_version: number }
const said = shallowRef<(Said & { sign: string }) | null>(null)
const own = ref(false)
const more = reactive({ words: '', place: '', machine_state: '' })
type Body = {
  sign: string
  words: string
  place: string
  machine_state: '' | 'starting' | 'running' | 'stopped' | 'any'
}
const { write, busy, waiting, problem } = useWrite(`saw-${drive.id}`, (body: Body, key, id) =>
  unwrap(
    api.POST('/api/drives/{drive_id}/findings', {
      params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
      body: { ...body, id },
    }),
  ),
)
const {
  write: amend,
  busy: amending,
  problem: amendProblem,
} = useWrite(`saw-more-${drive.id}`, (body: Omit<Body, 'sign'> & { id: string; row_version: number }, key) => {
  const { id, ...rest } = body
  return unwrap(
    api.POST('/api/findings/{finding_id}/words', {
      params: { path: { finding_id: id }, header: { 'Idempotency-Key': key } },
      body: rest,
    }),
  )
})
async function tap(sign: (typeof signs.value)[number]): Promise<void> {
  if (sign.key === 'other') {
    own.value = true
    return
  }
  await keep(sign.key, sign.state === 'any' ? '' : sign.state, sign.place)
}
async function keep(sign: string, state: string, place: string): Promise<void> {
  Object.assign(more, { machine_state: state, place })
  const words = sign === 'other' ? more.words : ''
  const done = await write({ sign, words, place: '', machine_state: state as Body['machine_state'] })
  if (!done) return
  said.value = { ...done, sign }
  own.value = false
  await refresh(drive.id)
}
async function add(): Promise<void> {
  const now = said.value
  if (!now) return
  const body = { ...more, machine_state: more.machine_state as Body['machine_state'] }
  const done = await amend({ ...body, id: now.id, row_version: now.row_version })
  if (!done) return
  await refresh(drive.id)
  open.value = false
}
function again(): void {
  said.value = null
  Object.assign(more, { words: '', place: '', machine_state: '' })
}
</script>

<template>
  <el-drawer v-model="open" :title="`What did you see? ${drive.machine}`" :size="460" append-to-body class="saw">
    <div v-if="said" class="stack" role="status">
      <p class="kept">
        <b>✓ Kept: {{ said.what }}.</b> Shown on Floor and at the top of the drive.
      </p>
      <label>
        In your own words, if you like
        <el-input
          v-model="more.words"
          type="textarea"
          :rows="3"
          maxlength="400"
          placeholder="only after the night shut-down"
        />
      </label>
      <label>
        When does it show?
        <select v-model="more.machine_state">
          <option v-for="s in states" :key="s" :value="s">{{ STATES[s] ?? s }}</option>
        </select>
      </label>
      <label>
        Where?
        <select v-model="more.place">
          <option value="">not said</option>
          <option v-for="p in data?.places ?? []" :key="p" :value="p">{{ p }}</option>
        </select>
      </label>
      <p v-if="amendProblem" class="ember" role="alert">{{ amendProblem.detail }}</p>
      <p class="row">
        <el-button type="primary" :loading="amending" @click="add">Add that</el-button>
        <el-button @click="again">Something else too</el-button>
        <el-button @click="open = false">That is all</el-button>
      </p>
    </div>
    <form v-else-if="own" class="stack" @submit.prevent="keep('other', '', '')">
      <label>
        What did you see?
        <el-input v-model="more.words" type="textarea" :rows="3" maxlength="400" autofocus />
      </label>
      <p v-if="problem" class="ember" role="alert">{{ problem.detail }}</p>
      <p class="row">
        <el-button type="primary" native-type="submit" :loading="busy">Keep it</el-button>
        <el-button @click="own = false">Back to the list</el-button>
      </p>
    </form>
    <template v-else>
      <p v-if="error" class="ember" role="alert">
        The list could not be read. <button type="button" class="bare" @click="refetch()"><u>Try again</u></button>
      </p>
      <div class="signs">
        <button v-for="s in signs" :key="s.key" type="button" :disabled="busy" @click="tap(s)">
          <span v-if="s.key !== 'other'" class="ember" aria-hidden="true">{{ mark(s.weight) }}</span>
          {{ s.label }}
        </button>
      </div>
      <p class="small soft">
        A machine with one of ■ is not run as it is. Look from outside the guard; hands in only when it is locked out.
      </p>
      <p v-if="waiting" role="status">No connection. Sending again by itself; nothing is stored twice.</p>
      <p v-if="problem" class="ember" role="alert">{{ problem.detail }}</p>
    </template>
  </el-drawer>
</template>

<style scoped>
.signs {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  margin-bottom: 12px;
}
.signs button {
  min-height: 58px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  padding: 6px 12px;
  text-align: left;
  font-size: 16.5px;
  font-stretch: 78%;
  font-weight: 600;
  cursor: pointer;
}
.signs button:hover:not(:disabled) {
  border-color: var(--ink-2);
}
.signs span {
  font-size: 11px;
  margin-right: 4px;
}
.kept {
  border-left: 4px solid var(--within);
  padding-left: 12px;
}
label {
  display: grid;
  gap: 4px;
  font-weight: 560;
}
select {
  min-height: 44px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 8px;
  font-size: 16px;
}
.row .el-button {
  margin-left: 0;
}
</style>
