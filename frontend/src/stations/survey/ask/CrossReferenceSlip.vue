<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'

import { api, unwrap } from '../../../api/client'
import type { components } from '../../../api/schema'
import { useSite } from '../../../api/queries'
import { useWrite } from '../../../api/useWrite'

/** Load the shop's own cross-reference from CSV; every row is reported on. */
const open = defineModel<boolean>({ required: true })
const site = useSite()
const client = useQueryClient()
const report = ref<components['schemas']['CrossReportOut'] | null>(null)
const fileName = ref('')
const tooLarge = ref('')
const LARGEST = 240_000
const { write, busy, problem } = useWrite('cross-reference', (body: { csv: string }, key) =>
  unwrap(
    api.POST('/api/sites/{site_id}/cross-reference', {
      params: { path: { site_id: site.value!.id }, header: { 'Idempotency-Key': key } },
      body,
    }),
  ),
)
async function load(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  fileName.value = file.name
  report.value = null
  tooLarge.value =
    file.size > LARGEST ? 'The file is larger than 240 kB: split it and load the parts one after another.' : ''
  if (!tooLarge.value) {
    report.value = await write({ csv: await file.text() })
    await client.invalidateQueries({ queryKey: ['found'] })
  }
  input.value = ''
}
const refusedRows = computed(() => report.value?.rows.filter((r) => !r.taken) ?? [])
</script>

<template>
  <el-dialog v-model="open" title="Your shop's cross-reference" width="min(640px, 94vw)" append-to-body>
    <div class="stack">
      <p>
        A CSV file with a heading line and these columns:
        <code>part_number, designation, machine, note</code>
        . The designation is the belt as it stands on it: B81, 5VX830, 4L430, SPA 1180. A part number loaded again takes
        the new row.
      </p>
      <label class="pick">
        <span>{{ busy ? 'Reading the file…' : 'Choose the CSV file' }}</span>
        <input type="file" accept=".csv,text/csv,text/plain" :disabled="busy" @change="load" />
      </label>
      <p v-if="tooLarge || problem" class="ember" role="alert">{{ tooLarge || problem?.detail }}</p>
      <template v-if="report">
        <p role="status">
          <b>{{ fileName }}:</b>
          {{ report.added }} new, {{ report.changed }} changed, {{ report.same }} as before,
          {{ report.refused_rows }} not taken.
        </p>
        <table>
          <thead>
            <tr>
              <th>Line</th>
              <th>Part number</th>
              <th>What became of it</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in [...refusedRows, ...report.rows.filter((x) => x.taken)]" :key="r.line">
              <td>{{ r.line }}</td>
              <td>{{ r.what || '–' }}</td>
              <td :class="{ ember: !r.taken }">{{ r.taken ? '✓' : '▲' }} {{ r.sentence }}</td>
            </tr>
          </tbody>
        </table>
      </template>
    </div>
  </el-dialog>
</template>

<style scoped>
code {
  font-family: ui-monospace, monospace;
  font-size: 13px;
}
.pick {
  display: grid;
  gap: 4px;
  font-weight: 600;
}
table {
  border-collapse: collapse;
  font-size: 14px;
  width: 100%;
}
th {
  text-align: left;
  font-weight: 560;
  color: var(--ink-2);
}
td,
th {
  padding: 4px 10px 4px 0;
  border-bottom: 1px solid var(--hair-2);
  vertical-align: top;
}
</style>
