<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ElMessageBox } from 'element-plus'
import { computed, inject, reactive, shallowRef } from 'vue'

import { api, type DriveOut, unwrap } from '../api/client'
import { useMayWrite } from '../api/queries'
import { useWrite } from '../api/useWrite'
import ChangedMeanwhile from '../clash/ChangedMeanwhile.vue'
import { sheetKey } from './useSheet'

/** What the drive is called and where it stands; putting it away, and bringing it back. */
const open = defineModel<boolean>({ required: true })
const { drive } = defineProps<{ drive: DriveOut }>()
const client = useQueryClient()
const sheet = inject(sheetKey)!
const mayWrite = useMayWrite()
const onRecord = computed(() => ({
  name: drive.name,
  machine: drive.machine,
  machine_kind: drive.machine_kind,
  place: drive.place,
  part_number: drive.part_number,
  note: drive.note,
}))
const form = reactive({ ...onRecord.value })
// What the form began from; the page may read a newer record while it is open, which must not pass for seen.
const was = shallowRef(onRecord.value)
const seen = shallowRef({ row_version: drive.row_version, machine_row_version: drive.machine_row_version })
const { write, busy, waiting, problem } = useWrite(
  `details-${drive.id}`,
  (body: typeof form & { retired: boolean; row_version: number; machine_row_version: number }, key) =>
    unwrap(
      api.POST('/api/drives/{drive_id}/details', {
        params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
        body,
      }),
    ),
)
const changed = computed(() => problem.value?.status === 409 && Boolean(problem.value.since?.length))
const wrong = computed(() => Object.fromEntries((problem.value?.errors ?? []).map((e) => [e.field, e.detail])))

async function keep(retired: boolean): Promise<void> {
  const versions = seen.value
  const done = await write({ ...form, ...versions, retired })
  // A survey begun before this rename is not stale because of it.
  if (done && sheet.base.value === versions.row_version) sheet.base.value = done.row_version
  if (!done) return
  await refresh()
  open.value = false
}
async function refresh(): Promise<void> {
  await client.invalidateQueries({ queryKey: ['drive', drive.id] })
  void client.invalidateQueries({ queryKey: ['floor'] })
}
/** From the record as it is now, with these words in the form. */
function standOnRecord(words: typeof form): void {
  Object.assign(form, words)
  was.value = onRecord.value
  seen.value = { row_version: drive.row_version, machine_row_version: drive.machine_row_version }
  problem.value = null
}
async function putAway(): Promise<void> {
  const sure = await ElMessageBox.confirm(
    'It leaves the lists; its record stays and it can be brought back.',
    'Archive this drive?',
    { confirmButtonText: 'Archive', cancelButtonText: 'Cancel' },
  ).catch(() => null)
  if (sure) await keep(true)
}
const FIELDS = [
  ['machine', 'Machine'],
  ['machine_kind', 'What it is'],
  ['place', 'Where it stands'],
  ['name', 'Drive'],
  ['part_number', "The machine's own part number for the belt"],
] as const
</script>

<template>
  <el-drawer v-model="open" title="Machine and drive" :size="420" append-to-body>
    <form class="stack" @submit.prevent="keep(Boolean(drive.retired_at))">
      <label v-for="[key, label] in FIELDS" :key="key">
        {{ label }}
        <el-input v-model="form[key]" maxlength="120" :disabled="!mayWrite" />
        <span v-if="wrong[key]" class="ember">{{ wrong[key] }}</span>
      </label>
      <label>
        Note
        <el-input v-model="form.note" type="textarea" :rows="3" maxlength="2000" :disabled="!mayWrite" />
      </label>
      <p v-if="problem && !changed && !problem.errors?.length" class="ember" role="alert">{{ problem.detail }}</p>
      <p v-if="waiting" role="status">No connection. Sending again by itself; nothing is stored twice.</p>
      <template v-if="mayWrite">
        <el-button type="primary" native-type="submit" :loading="busy">Keep</el-button>
        <el-button v-if="drive.retired_at" @click="keep(false)">Restore to the floor</el-button>
        <el-button v-else @click="putAway">Archive this drive</el-button>
      </template>
    </form>
    <ChangedMeanwhile
      v-if="changed"
      :problem="problem!"
      :refresh="refresh"
      :mine="form"
      :theirs="onRecord"
      :was="was"
      @keep="(chosen) => (standOnRecord(chosen), keep(Boolean(drive.retired_at)))"
      @theirs="standOnRecord({ ...onRecord })"
    />
  </el-drawer>
</template>

<style scoped>
label {
  display: grid;
  gap: 4px;
  font-size: 13.5px;
  font-weight: 560;
}
.el-button + .el-button {
  margin-left: 0;
}
</style>
