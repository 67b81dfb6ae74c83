<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive } from 'vue'

import { api, unwrap } from '../api/client'
import { useWrite } from '../api/useWrite'

/** A lead sees who is at the site and adds people. */
const { siteId } = defineProps<{ siteId: string }>()
const client = useQueryClient()
const { data } = useQuery({
  queryKey: ['people', siteId],
  queryFn: () => unwrap(api.GET('/api/sites/{site_id}/people', { params: { path: { site_id: siteId } } })),
})
const form = reactive({ name: '', passphrase: '', role: 'mechanic' as 'viewer' | 'mechanic' | 'lead' })
const { write, busy, problem } = useWrite('new-person', (body: typeof form, key, id) =>
  unwrap(
    api.POST('/api/sites/{site_id}/people', {
      params: { path: { site_id: siteId }, header: { 'Idempotency-Key': key } },
      body: { ...body, id },
    }),
  ),
)
const wrong = computed(() => Object.fromEntries((problem.value?.errors ?? []).map((e) => [e.field, e.detail])))

async function add(): Promise<void> {
  if (!(await write({ ...form }))) return
  form.name = form.passphrase = ''
  await client.invalidateQueries({ queryKey: ['people'] })
}
</script>

<template>
  <section class="stack">
    <h3>People</h3>
    <ul>
      <li v-for="p in data?.people" :key="p.id">
        <b>{{ p.name }}</b>
        <span class="soft">{{ p.role }}</span>
      </li>
    </ul>
    <form class="stack" @submit.prevent="add">
      <label>
        Name
        <el-input v-model="form.name" autocomplete="off" />
        <span v-if="wrong.name" class="ember">{{ wrong.name }}</span>
      </label>
      <label>
        First passphrase, to hand over
        <el-input v-model="form.passphrase" type="password" show-password autocomplete="new-password" />
        <span v-if="wrong.passphrase" class="ember">{{ wrong.passphrase }}</span>
      </label>
      <el-radio-group v-model="form.role">
        <el-radio value="viewer">viewer</el-radio>
        <el-radio value="mechanic">mechanic</el-radio>
        <el-radio value="lead">lead</el-radio>
      </el-radio-group>
      <el-button native-type="submit" :loading="busy">Add</el-button>
    </form>
  </section>
</template>

<style scoped>
section {
  border-top: 1px solid var(--hair);
  padding-top: 14px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  padding: 4px 0;
  border-bottom: 1px solid var(--hair-2);
}
label {
  display: grid;
  gap: 4px;
  font-size: 13.5px;
  font-weight: 560;
}
</style>
