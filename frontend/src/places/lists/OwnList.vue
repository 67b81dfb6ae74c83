<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ElMessage } from 'element-plus'
import { v4 as uuid } from 'uuid'
import { computed, ref } from 'vue'

import { api, unwrap } from '../../api/client'
import { useMayWrite, useSite } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import type { components } from '../../api/schema'
import { say } from '../../settings'

/** One of the shop's own lists: what holds now, a file to put in its place after a look at every row, and the way back. */
type Schemas = components['schemas']
const { what, held } = defineProps<{ what: 'parts' | 'ratings'; held: Schemas['Held'] }>()
const site = useSite()
const mayWrite = useMayWrite()
const client = useQueryClient()
const LARGEST = 240_000
const file = ref<{ name: string; content: string } | null>(null)
const report = ref<Schemas['ListReport'] | null>(null)
const trouble = ref('')
const done = ref('')
const reading = ref(false)

async function look(name: string, content: string): Promise<void> {
  report.value = null
  trouble.value = done.value = ''
  file.value = { name, content }
  if (content.length > LARGEST) {
    trouble.value = 'The file is larger than 240 kB: leave out what you never use.'
    return
  }
  reading.value = true
  try {
    const params = { path: { site_id: site.value!.id } }
    report.value = await unwrap(api.POST('/api/sites/{site_id}/lists/check', { params, body: { what, content } }))
  } catch (error) {
    trouble.value = (error as Error).message
  } finally {
    reading.value = false
  }
}
async function pick(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  if (chosen) await look(chosen.name, await chosen.text())
}
const { write, busy, waiting, problem } = useWrite(
  'own-list',
  (body: { what: 'parts' | 'ratings'; content: string; file_name: string }, key, id) =>
    unwrap(
      api.POST('/api/sites/{site_id}/lists', {
        params: { path: { site_id: site.value!.id }, header: { 'Idempotency-Key': key } },
        body: { ...body, id },
      }),
    ),
)
/** Whatever was worked out by the old list is asked again. */
const refresh = () =>
  client.invalidateQueries({ predicate: (q) => ['own lists', 'size choices', 'drive'].includes(String(q.queryKey[0])) })
async function keep(): Promise<void> {
  if (!file.value) return
  const kept = await write({ what, content: file.value.content, file_name: file.value.name.slice(0, 120) })
  if (!kept) return
  done.value = `${kept.taken} rows hold from now on.`
  file.value = report.value = null
  await refresh()
}
async function away(one: Schemas['ListOut'], back: boolean): Promise<void> {
  const answer = await unwrap(
    api.POST('/api/shop-lists/{list_id}/away', {
      params: { path: { list_id: one.id }, header: { 'Idempotency-Key': uuid() } },
      body: { row_version: one.row_version, back },
    }),
  ).catch((error: Error) => void ElMessage.error(error.message))
  if (!answer) return
  done.value = back ? `“${one.file_name}” holds again.` : `“${one.file_name}” is archived.`
  await refresh()
}
const NOBODY = {
  parts: 'None. Size looks among the common sizes of the tables, which are assumed to be had, and knows no prices.',
  ratings: 'None. Every drive is rated by the standards, or by estimates that say so.',
}
const rowsToShow = computed(() => {
  const rows = report.value?.rows ?? []
  // What went wrong with one row stands over what went wrong with a whole table because of it.
  const often = new Map<string, number>()
  for (const r of rows) often.set(r.sentence, (often.get(r.sentence) ?? 0) + 1)
  const refused = rows.filter((r) => !r.taken).sort((a, b) => often.get(a.sentence)! - often.get(b.sentence)!)
  return [...refused, ...rows.filter((r) => r.taken)].slice(0, 300)
})
const left = computed(() => report.value?.rows.filter((r) => !r.taken).length ?? 0)
const when = (at: string) => new Date(at).toLocaleDateString()
const example = computed(() => `data:text/csv;charset=utf-8,${encodeURIComponent(held.example)}`)
</script>

<template>
  <div class="station own">
    <section aria-live="polite">
      <h2>{{ held.now ? `${held.now.rows_taken} rows hold` : 'No list of your own' }}</h2>
      <p v-if="held.now" class="small">
        “{{ held.now.file_name }}”, {{ held.now.who }}, {{ when(held.now.loaded_at) }}.
        <a :href="`/api/shop-lists/${held.now.id}/file`" download>Fetch it</a>
      </p>
      <p v-else class="small soft">{{ say(NOBODY[what]) }}</p>
      <p v-if="held.now && mayWrite" class="row">
        <el-button @click="away(held.now, false)">
          {{ held.before ? `Back to “${held.before.file_name}”` : 'Do without it' }}
        </el-button>
      </p>
      <p v-if="held.put_away && mayWrite" class="small">
        “{{ held.put_away.file_name }}” is archived.
        <button type="button" class="bare" @click="away(held.put_away!, true)"><u>Restore</u></button>
      </p>
      <p v-if="done" class="small" role="status">✓ {{ done }}</p>
    </section>
    <section v-if="mayWrite">
      <h3>{{ held.now ? 'Put another in its place' : 'Bring one' }}</h3>
      <label class="pick" :class="{ busy: reading }">
        <b>{{ reading ? 'Reading every row…' : 'Choose a CSV or JSON file' }}</b>
        <span class="small soft">nothing is kept before you have seen every row</span>
        <input
          type="file"
          class="sr"
          accept=".csv,.json,text/csv,application/json,text/plain"
          :disabled="reading"
          @change="pick"
        />
      </label>
      <p v-if="trouble || problem || report?.refused" class="ember" role="alert">
        {{ trouble || report?.refused || problem?.detail }}
      </p>
      <template v-if="report && !report.refused">
        <p role="status">
          <b>{{ file?.name }}:</b> {{ report.taken }} rows can be taken<template v-if="left"
            >, <span class="ember">{{ left }} cannot</span></template
          >.
        </p>
        <div class="row">
          <el-button type="primary" :disabled="!report.taken" :loading="busy" @click="keep">
            {{ left ? `Keep the ${report.taken} that can` : 'Keep it' }}
          </el-button>
          <el-button @click="file = report = null">Cancel</el-button>
        </div>
        <p v-if="waiting" class="small ember">No connection: it is sent as soon as there is one.</p>
        <table class="rows">
          <caption class="sr">
            What would become of each row
          </caption>
          <tbody>
            <tr v-for="r in rowsToShow" :key="r.line" :class="{ ember: !r.taken }">
              <td class="n">{{ r.line }}</td>
              <td>{{ r.what || '–' }}</td>
              <td>{{ r.taken ? '✓' : '▲' }} {{ say(r.sentence) }}</td>
            </tr>
          </tbody>
        </table>
      </template>
    </section>
    <section>
      <h3>How the file is written</h3>
      <p class="small soft">
        CSV with these names in the first line, comma or semicolon; or a JSON list of objects with them.
        <a :href="example" :download="`example-${what}.csv`">Fetch an example</a>
      </p>
      <dl>
        <template v-for="c in held.columns" :key="c.name">
          <dt>
            <code>{{ c.name }}</code><span v-if="c.needed" class="small soft"> needed</span>
          </dt>
          <dd class="small">{{ say(c.about) }}</dd>
        </template>
      </dl>
    </section>
  </div>
</template>

<style src="../../stations/survey/ask/ask.css" scoped></style>
<style scoped>
.own section {
  display: grid;
  gap: 8px;
}
.pick {
  display: grid;
  gap: 2px;
  border: 1.5px dashed var(--ink-2);
  border-radius: 3px;
  padding: 14px;
  cursor: pointer;
}
.pick:focus-within {
  outline: 2px solid var(--focus);
}
.rows {
  border-collapse: collapse;
  font-size: 13.5px;
  font-stretch: 82%;
}
.rows td {
  border-top: 1px solid var(--hair-2);
  padding: 4px 8px 4px 0;
  vertical-align: top;
}
.n {
  text-align: right;
  color: var(--ink-2);
}
code {
  font-family: ui-monospace, monospace;
  font-size: 14px;
  font-weight: 600;
}
dl {
  margin: 0;
  display: grid;
  gap: 2px;
}
dd {
  margin: 0 0 6px;
}
</style>
