<script setup lang="ts">
import { computed, inject } from 'vue'

import { api, type DriveOut, unwrap } from '../../api/client'
import type { components } from '../../api/schema'
import { useMayWrite } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import { useRefresh } from '../../open/useOpen'
import { say } from '../../settings'
import { inspectKey } from './useInspect'

/** From a cause on: the station that shows it, the job that mends it, and keeping it as a finding. */
const { drive, cause } = defineProps<{ drive: DriveOut; cause: components['schemas']['RankedOut'] }>()
const desk = inject(inspectKey)!
const mayWrite = useMayWrite()
type Body = { cause: string } & Omit<components['schemas']['DiagnosedForm'], 'id' | 'cause'>
const { write, busy, waiting, problem } = useWrite(`diagnosed-${drive.id}`, (body: Body, key, id) =>
  unwrap(
    api.POST('/api/drives/{drive_id}/findings/diagnosed', {
      params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
      body: { ...body, id },
    }),
  ),
)
const refresh = useRefresh()
const job = computed(() => cause.jobs?.[0])
async function keep(): Promise<void> {
  const { seen, notSeen, checks, leftOut } = desk.told.value
  if (await write({ cause: cause.key, seen, not_seen: notSeen, checks, left_out: leftOut })) {
    desk.clear()
    await refresh(drive.id)
  }
}
</script>

<template>
  <div class="ways">
    <router-link v-if="cause.page" :to="`/drives/${drive.id}/${cause.page}`" class="go">{{
      say(`Look into it at ${cause.page.split('/')[0]}`)
    }}</router-link>
    <router-link v-if="job" :to="`/drives/${drive.id}/jobs?kind=${job.key}`" class="go"
      >Job: {{ say(job.title) }}</router-link
    >
    <el-button v-if="mayWrite && cause.key !== 'nothing_wrong'" :loading="busy" @click="keep"
      >Keep as a finding</el-button
    >
    <p v-if="waiting" role="status" class="small">No connection. It is sent again by itself.</p>
    <p v-if="problem" class="ember small" role="alert">{{ problem.detail }}</p>
  </div>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
}
.go {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
p {
  flex-basis: 100%;
}
</style>
