<script setup lang="ts">
import { reactive } from 'vue'

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
          />
        </ul>
        <p v-if="!drive.dues.length" class="soft">
          Nothing is due. Say when new belts go on, or the oil is changed: what follows then stands here.
        </p>
        <details v-if="mayWrite">
          <summary>Promise to look again on a day</summary>
          <form class="stack" @submit.prevent="keep">
            <label>What at? <el-input v-model="promise.what" maxlength="120" /></label>
            <label>When? <input v-model="promise.due_on" type="date" :min="dayFromNow(0)" /></label>
            <p v-if="problem" class="ember" role="alert">{{ problem.detail }}</p>
            <p>
              <el-button native-type="submit" :loading="busy" :disabled="!promise.what.trim()">Promise it</el-button>
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
section + section {
  margin-top: 8px;
}
</style>
