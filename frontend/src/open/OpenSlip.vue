<script setup lang="ts">
import { reactive, shallowRef } from 'vue'

import { api, type DriveOut, unwrap } from '../api/client'
import { useMayWrite } from '../api/queries'
import { useWrite } from '../api/useWrite'
import { dayFromNow } from '../words'
import DueLine from './DueLine.vue'
import FindingLine from './FindingLine.vue'
import HoursFields from './HoursFields.vue'
import { useRefresh } from './useOpen'

/** Everything open at a drive: what was seen, what falls due and why, and by which hours. */
const open = defineModel<boolean>({ required: true })
const { drive } = defineProps<{ drive: DriveOut }>()
const mayWrite = useMayWrite()
const refresh = useRefresh()
const promise = reactive({ what: '', due_on: dayFromNow(14) })
const { write, busy, problem } = useWrite(`promise-${drive.id}`, (body: typeof promise, key, id) =>
  unwrap(
    api.POST('/api/drives/{drive_id}/dues', {
      params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
      body: { ...body, id },
    }),
  ),
)
/** The last word on a due, which may be taken back while the slip is open. */
const last = shallowRef<{ key: string; promised: boolean; what: string; answer: string; row_version: number } | null>(
  null,
)
const {
  write: writeBack,
  busy: taking,
  problem: backProblem,
} = useWrite(`back-${drive.id}`, (body: { key: string; promised: boolean; row_version: number }, key, id) => {
  const header = { 'Idempotency-Key': key }
  const said = { answer: 'taken back' as const, to_on: null, why: '' }
  return body.promised
    ? unwrap(
        api.POST('/api/dues/{due_id}', {
          params: { path: { due_id: body.key }, header },
          body: { ...said, row_version: body.row_version },
        }),
      )
    : unwrap(
        api.POST('/api/drives/{drive_id}/due-answers', {
          params: { path: { drive_id: drive.id }, header },
          body: { ...said, id, rule: body.key },
        }),
      )
})
async function takeBack(): Promise<void> {
  const now = last.value
  if (!now) return
  const done = await writeBack({ key: now.key, promised: now.promised, row_version: now.row_version })
  if (done) last.value = null
  await refresh(drive.id)
}
async function keep(): Promise<void> {
  if (!(await write({ ...promise }))) return
  promise.what = ''
  await refresh(drive.id)
}
</script>

<template>
  <el-drawer v-model="open" :title="`Open at ${drive.machine}`" :size="480" append-to-body>
    <div class="stack">
      <section>
        <h3>Seen</h3>
        <ul>
          <FindingLine
            v-for="f in drive.findings"
            :key="`${f.id} ${f.row_version}`"
            :finding="f"
            :drive="drive"
            :may-write="mayWrite"
            @go="open = false"
          />
        </ul>
        <p v-if="!drive.findings.length" class="soft">Nothing is open.</p>
      </section>
      <section>
        <h3>Falls due</h3>
        <ul>
          <DueLine
            v-for="d in drive.dues"
            :key="`${d.key} ${d.row_version}`"
            :due="d"
            :drive="drive"
            :may-write="mayWrite"
            @go="open = false"
            @said="
              (answer, row_version) => (last = d.promised && answer === 'moved' ? null : { ...d, answer, row_version })
            "
          />
        </ul>
        <p v-if="last" class="row back" role="status">
          {{ last.what }}: {{ last.answer }}.
          <el-button :loading="taking" @click="takeBack">Take that back</el-button>
          <span v-if="backProblem" class="ember" role="alert">{{ backProblem.detail }}</span>
        </p>
        <p v-if="!drive.dues.length" class="soft">
          Nothing is due. Say when new belts go on, or the oil is changed: what follows then stands here.
        </p>
        <details v-if="mayWrite">
          <summary>Set a reminder</summary>
          <form class="stack" @submit.prevent="keep">
            <label>What at? <el-input v-model="promise.what" maxlength="120" /></label>
            <label>When? <input v-model="promise.due_on" type="date" :min="dayFromNow(0)" /></label>
            <p v-if="problem" class="ember" role="alert">{{ problem.detail }}</p>
            <p>
              <el-button native-type="submit" :loading="busy" :disabled="!promise.what.trim()"
                >Set a reminder</el-button
              >
            </p>
          </form>
        </details>
      </section>
      <HoursFields :drive="drive" :may-write="mayWrite" />
    </div>
  </el-drawer>
</template>

<style src="./line.css" scoped></style>
<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  text-decoration: underline;
  cursor: pointer;
}
.back {
  border-left: 4px solid var(--within);
  padding-left: 12px;
}
section + section {
  margin-top: 8px;
}
</style>
