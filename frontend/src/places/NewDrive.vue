<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { v4 as uuid } from 'uuid'
import { computed, reactive, watchEffect } from 'vue'
import { useRouter } from 'vue-router'

import { api, unwrap } from '../api/client'
import { useFamilies, useMachineNames } from '../api/queries'
import { capital } from '../words'
import { useWrite } from '../api/useWrite'

const open = defineModel<boolean>({ required: true })
const { siteId } = defineProps<{ siteId: string }>()
const router = useRouter()
const client = useQueryClient()
const { data: kinds } = useFamilies()

const form = reactive({
  machine: '',
  machine_kind: '',
  place: '',
  name: '',
  family: '',
  part_number: '',
})
watchEffect(() => (form.family ||= kinds.value?.families[0]?.key ?? ''))
const { data: named } = useMachineNames(() => form.machine)
const machines = computed(() => named.value?.machines ?? [])
const known = computed(() => machines.value.find((m) => m.name.toLowerCase() === form.machine.trim().toLowerCase()))
const newMachineId = uuid()

const { write, busy, waiting, problem } = useWrite(
  'new-drive',
  (body: Omit<typeof form, 'machine'> & { machine_name: string; machine_id: string }, key, id) =>
    unwrap(
      api.POST('/api/sites/{site_id}/drives', {
        params: { path: { site_id: siteId }, header: { 'Idempotency-Key': key } },
        body: { ...body, id },
      }),
    ),
)
const wrong = computed(() => Object.fromEntries((problem.value?.errors ?? []).map((e) => [e.field, e.detail])))
const BESIDE = ['machine_name', 'name']
/** What is refused and has no field of its own here. */
const other = computed(() => {
  const errors = problem.value?.errors ?? []
  if (problem.value && !errors.length) return problem.value.detail
  return errors
    .filter((e) => !BESIDE.includes(e.field))
    .map((e) => e.detail)
    .join(' ')
})

async function keep(): Promise<void> {
  const { machine, ...rest } = form
  const made = await write({ ...rest, machine_name: machine, machine_id: known.value?.id ?? newMachineId })
  if (!made) return
  open.value = false
  void client.invalidateQueries({ queryKey: ['floor'] })
  await router.push(`/drives/${made.id}/survey`)
}
async function suggest(text: string, done: (found: { value: string }[]) => void): Promise<void> {
  const found = await unwrap(
    api.GET('/api/sites/{site_id}/machines', { params: { path: { site_id: siteId }, query: { find: text } } }),
  ).catch(() => ({ machines: machines.value }))
  done(found.machines.map((m) => ({ value: m.name })))
}
</script>

<template>
  <el-drawer v-model="open" title="New drive" :size="420" append-to-body>
    <form class="stack" @submit.prevent="keep">
      <label>
        Machine
        <el-autocomplete
          v-model="form.machine"
          :fetch-suggestions="suggest"
          :trigger-on-focus="false"
          placeholder="as painted on it"
          autofocus
        />
        <span v-if="wrong.machine_name" class="wrong">{{ wrong.machine_name }}</span>
        <span v-else-if="known" class="soft small"> on the record already: the drive is added to it </span>
      </label>
      <template v-if="!known">
        <label>
          What it is
          <el-input v-model="form.machine_kind" placeholder="blower, pump, conveyor…" />
        </label>
        <label>
          Where it stands
          <el-input v-model="form.place" />
        </label>
      </template>
      <label>
        Drive
        <el-input v-model="form.name" placeholder="main drive, supply fan drive…" />
        <span v-if="wrong.name" class="wrong">{{ wrong.name }}</span>
      </label>
      <label>
        Kind of drive
        <el-select v-model="form.family">
          <el-option v-for="f in kinds?.families ?? []" :key="f.key" :label="capital(f.label)" :value="f.key" />
        </el-select>
      </label>
      <label>
        The machine's own part number for the belt, if it has one
        <el-input v-model="form.part_number" />
      </label>
      <p v-if="other" class="wrong" role="alert">{{ other }}</p>
      <p v-if="waiting" role="status">No connection. Sending again by itself; nothing is stored twice.</p>
      <el-button type="primary" native-type="submit" :loading="busy" :disabled="!form.family"
        >Keep, and go to its survey</el-button
      >
    </form>
  </el-drawer>
</template>

<style scoped>
label {
  display: grid;
  gap: 4px;
  font-size: 13.5px;
  font-weight: 560;
}
.wrong {
  color: var(--ember);
  font-weight: 560;
}
</style>
