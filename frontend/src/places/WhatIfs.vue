<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ElMessage, ElMessageBox } from 'element-plus'
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'

import { api, unwrap } from '../api/client'
import { useMayWrite, useSite } from '../api/queries'
import { useWrite } from '../api/useWrite'
import ChangedMeanwhile from '../clash/ChangedMeanwhile.vue'
import type { components } from '../api/schema'
import { trimmed } from '../sheet/form'
import { blankSize, completedSize, type SizeAsked } from '../stations/size/useSizeAsk'

/** What-ifs kept by name at this site: open one, keep what is on the bench, put one away. */
const asked = defineModel<SizeAsked>({ required: true })
type WhatIf = components['schemas']['WhatIfOut']
const site = useSite()
const mayWrite = useMayWrite()
const client = useQueryClient()
const at = computed(() => site.value?.id ?? '')
const { data } = useQuery({
  queryKey: computed(() => ['what-ifs', at.value]),
  enabled: computed(() => Boolean(at.value)),
  queryFn: () => unwrap(api.GET('/api/sites/{site_id}/what-ifs', { params: { path: { site_id: at.value } } })),
})
const opened = ref<WhatIf | null>(null)
const name = ref('')
const kept = ref('')
const bodyOf = () => trimmed({ size: asked.value.size, chosen: asked.value.chosen, beside: asked.value.beside })
const refresh = () => client.invalidateQueries({ queryKey: ['what-ifs', at.value] })

type Body = ReturnType<typeof bodyOf> & { name: string; row_version: number }
const { write, busy, problem } = useWrite('what-if', (body: Body, key, id) => {
  const header = { 'Idempotency-Key': key }
  const { row_version, ...rest } = body
  return opened.value && row_version
    ? unwrap(
        api.PUT('/api/what-ifs/{what_if_id}', {
          params: { path: { what_if_id: opened.value.id }, header },
          body: { ...rest, row_version },
        }),
      )
    : unwrap(
        api.POST('/api/sites/{site_id}/what-ifs', {
          params: { path: { site_id: at.value }, header },
          body: { ...rest, id },
        }),
      )
})
async function keep(fresh: boolean): Promise<void> {
  const version = fresh ? 0 : (opened.value?.row_version ?? 0)
  const done = await write({ ...bodyOf(), name: name.value, row_version: version })
  if (!done) return
  await refresh()
  opened.value = data.value?.what_ifs.find((w) => w.id === done.id) ?? null
  kept.value = `Kept as “${name.value.trim()}”.`
}
function open(one: WhatIf): void {
  opened.value = one
  name.value = one.name
  kept.value = ''
  asked.value = completedSize({
    ...asked.value,
    size: one.size as SizeAsked['size'],
    chosen: one.chosen,
    beside: one.beside,
  })
}
async function blank(): Promise<void> {
  const sure = await ElMessageBox.confirm(
    'What lies on the bench is cleared; what-ifs kept by name stay.',
    'Start blank?',
    {
      confirmButtonText: 'Start blank',
      cancelButtonText: 'Cancel',
    },
  ).catch(() => null)
  if (!sure) return
  opened.value = null
  name.value = kept.value = ''
  asked.value = blankSize()
}
async function away(one: WhatIf, back: boolean, version = one.row_version): Promise<void> {
  const done = await unwrap(
    api.POST('/api/what-ifs/{what_if_id}/away', {
      params: { path: { what_if_id: one.id }, header: { 'Idempotency-Key': uuid() } },
      body: { row_version: version, back },
    }),
  ).catch((error: Error) => void ElMessage.error(error.message))
  if (!done) return
  if (!back && opened.value?.id === one.id) opened.value = null
  await refresh()
  undo.value = back ? null : { one, version: done.row_version }
}
const undo = ref<{ one: WhatIf; version: number } | null>(null)
interface Words {
  name: string
  size: SizeAsked['size']
  chosen: SizeAsked['chosen']
  beside: SizeAsked['beside']
}
const changed = computed(() => problem.value?.status === 409 && Boolean(problem.value.since?.length) && theirs.value)
const theirs = computed(() => data.value?.what_ifs.find((w) => w.id === opened.value?.id))
/** A what-if as kept, with every field there is, as the bench shows it. */
function words(one: Pick<WhatIf, 'name' | 'size' | 'chosen' | 'beside'>): Words {
  const { size, chosen, beside } = completedSize({
    size: one.size as SizeAsked['size'],
    chosen: one.chosen,
    beside: one.beside,
  })
  return { name: one.name, size, chosen, beside }
}
async function settle(chosen: Words | null): Promise<void> {
  const now = theirs.value
  if (!now) return
  open(now)
  problem.value = null
  if (!chosen) return
  const { name: called, ...rest } = chosen
  name.value = called
  asked.value = { ...asked.value, ...rest }
  await keep(false)
}
const wrong = computed(() => problem.value?.errors?.find((e) => e.field === 'name')?.detail ?? problem.value?.detail)
</script>

<template>
  <section class="whatifs no-print" aria-label="What-ifs">
    <form class="keep" @submit.prevent="keep(!opened)">
      <label for="what-if-name" class="sr">Name of this what-if</label>
      <input id="what-if-name" v-model="name" placeholder="name this what-if, to keep it" autocomplete="off" />
      <el-button v-if="mayWrite" native-type="submit" :loading="busy">{{
        opened ? 'Keep it again' : 'Keep'
      }}</el-button>
      <el-button v-if="mayWrite && opened" @click="keep(true)">as another</el-button>
      <el-button @click="blank">Blank</el-button>
    </form>
    <p v-if="problem && !changed" class="ember small" role="alert">Not kept: {{ wrong }}</p>
    <p v-else-if="kept" class="small" role="status">✓ {{ kept }}</p>
    <p v-if="undo" class="small" role="status">
      “{{ undo.one.name }}” is archived.
      <button type="button" class="bare" @click="away(undo!.one, true, undo!.version)"><u>Undo</u></button>
    </p>
    <ChangedMeanwhile
      v-if="changed && theirs && opened"
      :problem="problem!"
      :refresh="refresh"
      :mine="words({ name, ...asked })"
      :theirs="words(theirs)"
      :was="words(opened)"
      @keep="settle"
      @theirs="settle(null)"
    />
    <ul v-if="data?.what_ifs.length">
      <li v-for="w in data.what_ifs" :key="w.id" :class="{ here: opened?.id === w.id }">
        <button type="button" class="bare open" :aria-pressed="opened?.id === w.id" @click="open(w)">
          {{ w.name }} <span class="soft small">{{ w.who }}, {{ new Date(w.made_at).toLocaleDateString() }}</span>
        </button>
        <button v-if="mayWrite" type="button" class="bare x" :aria-label="`Archive ${w.name}`" @click="away(w, false)">
          ×
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.whatifs {
  padding: 12px 18px 0;
  display: grid;
  gap: 6px;
}
.keep {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.keep input {
  flex: 1 1 180px;
  min-width: 0;
  min-height: 44px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 10px;
  font-size: 16px;
}
.keep :deep(.el-button) {
  min-height: 44px;
  margin: 0;
  padding: 0 10px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 150px;
  overflow-y: auto;
}
li {
  display: flex;
  border-top: 1px solid var(--hair-2);
}
li.here {
  box-shadow: inset 3px 0 0 var(--ember);
}
.open {
  flex: 1;
  min-height: 44px;
  text-align: left;
  padding: 0 10px;
}
.x {
  width: 44px;
  font-size: 18px;
}
</style>
