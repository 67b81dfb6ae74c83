<script setup lang="ts">
import { ref } from 'vue'

import { api, unwrap } from '../api/client'
import type { components } from '../api/schema'
import { useWrite } from '../api/useWrite'
import { useStartJob } from '../jobs/useJobs'
import { dayFromNow, dueText } from '../words'
import { useRefresh } from './useOpen'

/** A due: when, with its doubt, and why; done, moved or not needed. */
const { due, drive, mayWrite } = defineProps<{
  due: components['schemas']['DueOut']
  drive: { id: string }
  mayWrite: boolean
}>()
const emit = defineEmits<{ go: []; said: [answer: string, row_version: number] }>()
const refresh = useRefresh()
const { start, busy: starting } = useStartJob(`due-${drive.id}-${due.key}`)
type Said = 'done' | 'moved' | 'not needed'
const saying = ref<Said | ''>('')
const why = ref('')
const to = ref(dayFromNow(7))
type Body = { answer: Said; to_on: string | null; why: string; row_version: number }
const { write, busy, problem } = useWrite(`due-${drive.id}-${due.key}`, (body: Body, key, id) => {
  const header = { 'Idempotency-Key': key }
  return due.promised
    ? unwrap(api.POST('/api/dues/{due_id}', { params: { path: { due_id: due.key }, header }, body }))
    : unwrap(
        api.POST('/api/drives/{drive_id}/due-answers', {
          params: { path: { drive_id: drive.id }, header },
          body: { answer: body.answer, to_on: body.to_on, why: body.why, id, rule: due.key },
        }),
      )
})
async function keep(answer: Said): Promise<void> {
  const body = { answer, to_on: answer === 'moved' ? to.value : null, why: why.value, row_version: due.row_version }
  const done = await write(body)
  if (!done) {
    if (problem.value?.status === 409) await refresh(drive.id)
    return
  }
  saying.value = ''
  emit('said', answer, done.row_version ?? 0)
  await refresh(drive.id)
}
const wrong = (field: string) => problem.value?.errors?.find((e) => e.field === field)?.detail
</script>

<template>
  <li class="line">
    <p>
      <b :class="{ ember: !due.resting && due.days !== null && due.days <= 0 }">{{
        due.resting || due.days === null ? '–' : dueText(due.days)
      }}</b>
      {{ due.what }}
    </p>
    <p class="small soft">{{ due.said }}</p>
    <p class="small soft">{{ due.because }}</p>
    <p class="row">
      <router-link :to="`/drives/${drive.id}/${due.page}`" class="go" @click="emit('go')">
        Do it at {{ due.page.split(/[/?]/)[0] }}
      </router-link>
      <template v-if="mayWrite && !saying">
        <el-button :loading="starting" @click="start(drive.id, '', {}, due.key)">Start its job</el-button>
        <el-button :loading="busy" @click="keep('done')">Done</el-button>
        <el-button @click="saying = 'moved'">Move…</el-button>
        <el-button @click="saying = 'not needed'">Not needed…</el-button>
      </template>
    </p>
    <form v-if="saying" class="stack" @submit.prevent="keep(saying)">
      <label v-if="saying === 'moved'">
        To which day?
        <input v-model="to" type="date" :min="dayFromNow(0)" />
        <span v-if="wrong('to_on')" class="ember">{{ wrong('to_on') }}</span>
      </label>
      <label>
        Why?
        <el-input v-model="why" maxlength="400" />
        <span v-if="wrong('why')" class="ember">{{ wrong('why') }}</span>
      </label>
      <p class="row">
        <el-button type="primary" native-type="submit" :loading="busy">{{
          saying === 'moved' ? 'Move it' : 'Not needed'
        }}</el-button>
        <el-button @click="saying = ''">Cancel</el-button>
      </p>
    </form>
    <p v-if="problem && !problem.errors?.length" class="ember" role="alert">{{ problem.detail }}</p>
  </li>
</template>

<style src="./line.css" scoped></style>
