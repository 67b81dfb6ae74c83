<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'

import { api, unwrap } from '../api/client'
import type { components } from '../api/schema'
import { useWrite } from '../api/useWrite'
import { capital } from '../words'

/** By which rules things fall due here: the usual ones, those changed or made here; a lead changes them. */
const open = defineModel<boolean>({ required: true })
const { siteId, lead } = defineProps<{ siteId: string; lead: boolean }>()
type Rule = components['schemas']['RuleOut']
const client = useQueryClient()
const { data, error, refetch } = useQuery({
  queryKey: ['due rules', computed(() => siteId)],
  queryFn: () => unwrap(api.GET('/api/sites/{site_id}/due-rules', { params: { path: { site_id: siteId } } })),
})
const events = computed(() => (data.value?.events ?? []).filter((e) => e !== 'proposal fitted'))
type Form = components['schemas']['RuleForm']
const form = reactive({
  key: '',
  event: 'new set',
  what: '',
  hours: '',
  days: '',
  months: '',
  repeats: false,
  kinds: [] as string[],
  page: 'tension',
  used: true,
  row_version: 0,
})
const editing = ref(false)
const fresh = ref(false)
const text = (n: number | null) => (n === null ? '' : String(n))
function edit(rule: Rule): void {
  const { key, event, what, repeats, kinds, page, used, row_version } = rule
  const after = { hours: text(rule.after_hours), days: text(rule.after_days), months: text(rule.after_months) }
  Object.assign(form, { key, event, what, repeats, kinds, page, used, row_version }, after)
  fresh.value = false
  editing.value = true
}
function make(): void {
  Object.assign(form, {
    key: '',
    event: 'new set',
    what: '',
    hours: '',
    days: '',
    months: '',
    repeats: false,
    kinds: [],
    page: 'tension',
    used: true,
    row_version: 0,
  })
  fresh.value = true
  editing.value = true
}
const number = (said: string) => (said.trim() === '' ? null : Number(said.replace(',', '.')))
const bad = computed(() => [form.hours, form.days, form.months].some((n) => Number.isNaN(number(n) ?? 0)))
const { write, busy, problem } = useWrite(`rule-${siteId}`, (body: Omit<Form, 'id'>, key, id) =>
  unwrap(
    api.POST('/api/sites/{site_id}/due-rules', {
      params: { path: { site_id: siteId }, header: { 'Idempotency-Key': key } },
      body: { ...body, id },
    }),
  ),
)
async function keep(): Promise<void> {
  const done = await write({
    key: fresh.value ? form.what.trim().toLowerCase().slice(0, 60) : form.key,
    event: form.event as Form['event'],
    what: form.what,
    after_hours: number(form.hours),
    after_days: number(form.days),
    after_months: number(form.months),
    repeats: form.repeats,
    kinds: form.kinds,
    page: form.page as Form['page'],
    used: form.used,
    row_version: form.row_version,
  })
  if (done || problem.value?.status === 409) await again()
  if (done) editing.value = false
}
async function again(): Promise<void> {
  await client.invalidateQueries({ queryKey: ['due rules'] })
  void client.invalidateQueries({ queryKey: ['floor'] })
  void client.invalidateQueries({ queryKey: ['drive'] })
}
const { write: writeZone, problem: zoneProblem } = useWrite(
  `zone-${siteId}`,
  (body: { zone: string; row_version: number }, key) =>
    unwrap(
      api.POST('/api/sites/{site_id}/zone', {
        params: { path: { site_id: siteId }, header: { 'Idempotency-Key': key } },
        body,
      }),
    ),
)
async function chooseZone(zone: string): Promise<void> {
  await writeZone({ zone, row_version: data.value?.site_version ?? 1 })
  await again()
}
const wrong = (field: string) => problem.value?.errors?.find((e) => e.field === field)?.detail
</script>

<template>
  <el-drawer v-model="open" title="What falls due, and after what" :size="520" append-to-body>
    <p v-if="error" class="ember" role="alert">
      The rules could not be read. <button type="button" class="bare" @click="refetch()"><u>Try again</u></button>
    </p>
    <form v-else-if="editing" class="stack" @submit.prevent="keep">
      <label>
        What to do
        <el-input v-model="form.what" maxlength="120" />
        <span v-if="wrong('what')" class="ember">{{ wrong('what') }}</span>
      </label>
      <label>
        Counted from
        <select v-model="form.event">
          <option v-for="e in events" :key="e" :value="e">{{ e }}</option>
        </select>
      </label>
      <div class="three">
        <label>Running hours <el-input v-model="form.hours" inputmode="decimal" placeholder="–" /></label>
        <label>or days <el-input v-model="form.days" inputmode="decimal" placeholder="–" /></label>
        <label>or months <el-input v-model="form.months" inputmode="numeric" placeholder="–" /></label>
      </div>
      <p class="small soft">Whichever comes first.</p>
      <span v-if="wrong('after_hours')" class="ember">{{ wrong('after_hours') }}</span>
      <span v-if="bad" class="ember">Write numbers, such as 24.</span>
      <label>
        Done at
        <select v-model="form.page">
          <option v-for="p in ['tension', 'align', 'inspect/round', 'survey', 'speed', 'size']" :key="p" :value="p">
            {{ capital(p.replace('inspect/', '')) }}
          </option>
        </select>
      </label>
      <el-checkbox v-model="form.repeats">Repeats</el-checkbox>
      <el-checkbox v-model="form.used">used here</el-checkbox>
      <p v-if="problem && !problem.errors?.length" class="ember" role="alert">{{ problem.detail }}</p>
      <p class="row">
        <el-button type="primary" native-type="submit" :loading="busy" :disabled="bad || !form.what.trim()"
          >Keep</el-button
        >
        <el-button @click="editing = false">Cancel</el-button>
      </p>
    </form>
    <div v-else class="stack">
      <ul>
        <li v-for="r in data?.rules ?? []" :key="r.key" class="line" :class="{ off: !r.used }">
          <p>
            <b>{{ r.what }}</b>
          </p>
          <p class="small soft">
            {{ r.interval }} after: {{ r.event }}{{ r.repeats ? ', repeats' : ''
            }}{{ r.kinds.length ? `; ${r.kinds.join(', ')}` : '' }}{{ r.used ? '' : '; not used here' }}
          </p>
          <p class="small soft">{{ r.own ? 'changed here' : r.source }}</p>
          <p v-if="lead"><el-button @click="edit(r)">Change</el-button></p>
        </li>
      </ul>
      <p v-if="lead"><el-button type="primary" @click="make">Make a rule</el-button></p>
      <label v-if="data">
        Time zone
        <select :value="data.zone" :disabled="!lead" @change="chooseZone(($event.target as HTMLSelectElement).value)">
          <option v-for="z in data.zones" :key="z" :value="z">{{ z }}</option>
        </select>
      </label>
      <p v-if="zoneProblem" class="ember" role="alert">{{ zoneProblem.detail }}</p>
      <p v-if="!lead" class="small soft">A lead changes these.</p>
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
.off {
  opacity: 0.6;
}
.three {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 10px;
}
</style>
