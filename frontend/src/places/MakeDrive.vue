<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { api, unwrap } from '../api/client'
import { useMachineNames, useMayWrite, useSite } from '../api/queries'
import { useWrite } from '../api/useWrite'
import type { CandidateFull } from '../stations/size/useSizeAsk'

/** A drive of the bench made into one on the record: on a machine that is there or a new one, as a proposal with its parts. */
const { candidate } = defineProps<{ candidate: CandidateFull }>()
const site = useSite()
const mayWrite = useMayWrite()
const router = useRouter()
const client = useQueryClient()
const machine = ref('')
const name = ref('')
const asking = ref(false)
const { data: named } = useMachineNames(machine)
const machines = computed(() => named.value?.machines ?? [])
const known = computed(() => machines.value.find((m) => m.name.toLowerCase() === machine.value.trim().toLowerCase()))
const family = computed(() => candidate.drive_family)
const newMachine = uuid()

interface Body {
  machine_name: string
  machine_id: string
  name: string
}
const { write, busy, problem } = useWrite('bench-drive', async (body: Body, key, id) => {
  const made = await unwrap(
    api.POST('/api/sites/{site_id}/drives', {
      params: { path: { site_id: site.value!.id }, header: { 'Idempotency-Key': key } },
      body: { ...body, id, family: family.value, machine_kind: '', place: '', part_number: '' },
    }),
  )
  const drive = await unwrap(api.GET('/api/drives/{drive_id}', { params: { path: { drive_id: made.id } } }))
  await unwrap(
    api.POST('/api/drives/{drive_id}/surveys', {
      params: { path: { drive_id: made.id }, header: { 'Idempotency-Key': uuid() } },
      body: {
        id: uuid(),
        row_version: drive.row_version,
        standing: 'proposed',
        reason: `${candidate.name}: ${candidate.parts.map((p) => `${p.many} × ${p.name}`).join(', ')}`.slice(0, 200),
        survey: candidate.survey!,
      },
    }),
  )
  return made
})
const wrong = computed(() => problem.value?.errors?.map((e) => e.detail).join(' ') || problem.value?.detail)
async function make(): Promise<void> {
  const made = await write({
    machine_name: machine.value,
    machine_id: known.value?.id ?? newMachine,
    name: name.value,
  })
  if (!made) return
  void client.invalidateQueries({ queryKey: ['floor'] })
  await router.push(`/drives/${made.id}/log`)
}
</script>

<template>
  <el-button v-if="mayWrite && !asking" type="primary" @click="asking = true">Make it a drive</el-button>
  <form v-if="asking" class="make" @submit.prevent="make">
    <label>
      On which machine
      <input v-model="machine" list="machines" placeholder="as painted on it" autocomplete="off" />
      <datalist id="machines"><option v-for="m in machines" :key="m.id" :value="m.name" /></datalist>
    </label>
    <label>
      The drive
      <input v-model="name" placeholder="main drive" autocomplete="off" />
    </label>
    <p v-if="problem" class="ember small" role="alert">Not made: {{ wrong }}</p>
    <p class="row">
      <el-button type="primary" native-type="submit" :loading="busy">Make it</el-button>
      <el-button @click="asking = false">Cancel</el-button>
    </p>
    <p class="small soft">It comes onto the record as a proposal with its parts: nothing counts as fitted yet.</p>
  </form>
</template>

<style scoped>
.make {
  display: grid;
  gap: 8px;
  width: 100%;
  border-top: 1px solid var(--hair);
  padding-top: 8px;
}
label {
  display: grid;
  gap: 2px;
  font-size: 13.5px;
}
input {
  min-height: 44px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 10px;
  font-size: 16px;
}
</style>
