<script setup lang="ts">
import { api, unwrap } from '../api/client'
import { useWrite } from '../api/useWrite'
import { say } from '../settings'
import { useRefresh } from './useOpen'

/** After a reading in order: whether it put right what people saw is theirs to say. */
const settles = defineModel<{ id: string; what: string; row_version: number }[]>({ required: true })
const { drive, headline } = defineProps<{ drive: { id: string }; headline: string }>()
const refresh = useRefresh()
const { write, busy, problem } = useWrite(
  `settle-${drive.id}`,
  (body: { id: string; row_version: number; state: 'closed'; how: 'reading'; why: string }, key) => {
    const { id, ...rest } = body
    return unwrap(
      api.POST('/api/findings/{finding_id}', {
        params: { path: { finding_id: id }, header: { 'Idempotency-Key': key } },
        body: rest,
      }),
    )
  },
)
const drop = (id: string) => (settles.value = settles.value.filter((s) => s.id !== id))
async function close(s: { id: string; row_version: number }): Promise<void> {
  const done = await write({ id: s.id, row_version: s.row_version, state: 'closed', how: 'reading', why: headline })
  await refresh(drive.id)
  if (done || problem.value?.status === 409) drop(s.id)
}
</script>

<template>
  <div v-if="settles.length" class="settles" role="status">
    <p v-for="s in settles" :key="s.id">
      Does this put right <b>{{ say(s.what) }}</b>?
      <span class="row">
        <el-button type="primary" :loading="busy" @click="close(s)">Yes, close it</el-button>
        <el-button @click="drop(s.id)">Still to be seen</el-button>
      </span>
    </p>
    <p v-if="problem" class="ember" role="alert">{{ problem.detail }}</p>
  </div>
</template>

<style scoped>
.settles {
  display: grid;
  gap: 10px;
  border-left: 4px solid var(--within);
  padding-left: 12px;
}
.row {
  margin-top: 4px;
}
.row .el-button {
  margin-left: 0;
}
</style>
