<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useTable, useTables } from '../api/queries'
import { inSystem, settings } from '../settings'
import BenchNav from './BenchNav.vue'

/** Any table of standards: units swapped, filtered, with where each row comes from; printed, it replaces the sheet on the wall. */
const route = useRoute()
const router = useRouter()
const name = computed(() => String(route.params.name || 'v_sections'))
const { data: book, error: bookError } = useTables()
const { data, error, isPending } = useTable(name)
const table = computed(() => data.value?.table)
const filter = ref(typeof route.query.find === 'string' ? route.query.find : '')
watch(name, () => (filter.value = ''))
watch(filter, (text) => void router.replace({ query: text ? { find: text } : {} }))
const groups = computed(() => {
  const found = new Map<string, { name: string; title: string; rows: number }[]>()
  for (const t of book.value?.tables ?? []) found.set(t.group, [...(found.get(t.group) ?? []), t])
  return [...found]
})
const MOST = 400
const rows = computed(() => {
  const t = table.value
  if (!t) return []
  const words = filter.value.toLowerCase().split(/\s+/).filter(Boolean)
  return t.rows
    .map((cells, i) => ({
      i,
      cells: cells.map(inSystem),
      source: t.sources[i] ?? '',
      confidence: t.confidences[i] ?? '',
    }))
    .filter((r) => {
      const heads = [...r.cells, r.source, r.confidence].map((c) => c.toLowerCase())
      return words.every((w) => heads.some((h) => h === w || h.startsWith(w) || (w.length > 2 && h.includes(w))))
    })
})
const shown = computed(() => rows.value.slice(0, MOST))
const unit = (c: { us_unit: string; si_unit: string }) => (settings.value.system === 'us' ? c.us_unit : c.si_unit)
const print = () => window.print()
const go = (event: Event) => void router.push(`/bench/tables/${(event.target as HTMLSelectElement).value}`)
</script>

<template>
  <div class="bench">
    <BenchNav here="tables" />
    <div class="book">
      <nav class="list no-print" aria-label="Tables">
        <template v-for="[group, tables] in groups" :key="group">
          <h3>{{ group }}</h3>
          <router-link
            v-for="t in tables"
            :key="t.name"
            :to="`/bench/tables/${t.name}`"
            :aria-current="t.name === name ? 'page' : undefined"
          >
            {{ t.title }}
            <span class="soft small">{{ t.rows }}</span>
          </router-link>
        </template>
      </nav>
      <section class="page" aria-label="Table">
        <select class="small-pick no-print" :value="name" aria-label="Table" @change="go">
          <optgroup v-for="[group, tables] in groups" :key="group" :label="group">
            <option v-for="t in tables" :key="t.name" :value="t.name">{{ t.title }}</option>
          </optgroup>
        </select>
        <p v-if="error || bookError" role="alert">The table could not be read: {{ (error ?? bookError)?.message }}</p>
        <p v-else-if="isPending" class="soft">Opening the table…</p>
        <template v-else-if="table">
          <div class="head">
            <h2>{{ table.title }}</h2>
            <input
              v-model="filter"
              class="no-print"
              type="search"
              aria-label="Filter"
              placeholder="Filter: B, 5VX, SPA 1250 …"
            />
            <el-button class="no-print" @click="print">Print</el-button>
          </div>
          <details class="notes small soft">
            <summary>How to read it</summary>
            <p v-for="n in table.notes" :key="n">{{ n }}</p>
          </details>
          <p class="small soft" role="status">
            {{
              rows.length === table.rows.length ? `${rows.length} rows` : `${rows.length} of ${table.rows.length} rows`
            }}
            <template v-if="rows.length > MOST">; the first {{ MOST }} are shown, filter for the rest</template>
          </p>
          <div v-if="rows.length" class="scroll" tabindex="0" role="region" :aria-label="table.title">
            <table>
              <thead>
                <tr>
                  <th v-for="c in table.columns" :key="c.key" scope="col" :class="{ number: c.number }">
                    {{ c.label }}
                    <span v-if="unit(c)" class="unit">{{ unit(c) }}</span>
                  </th>
                  <th scope="col">how sure</th>
                  <th scope="col">source</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="r in shown" :key="r.i">
                  <td
                    v-for="(cell, i) in r.cells"
                    :key="i"
                    :class="{ number: table.columns[i]?.number, long: cell.length > 40 }"
                  >
                    {{ cell || '–' }}
                  </td>
                  <td :class="{ ember: r.confidence === 'low' }">{{ r.confidence }}</td>
                  <td class="soft source">{{ r.source }}</td>
                </tr>
              </tbody>
            </table>
          </div>
          <p v-else>
            No row fits “{{ filter }}”.
            <button type="button" class="bare" @click="filter = ''"><u>Show all rows</u></button>
          </p>
          <p class="small soft">
            From memory of the sources named; check the document itself before you rely on a figure.
          </p>
        </template>
      </section>
    </div>
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
}
.book {
  display: grid;
  grid-template-columns: 218px minmax(0, 1fr);
  min-height: 0;
}
.list {
  border-right: 1px solid var(--hair);
  padding: 12px 0 16px;
  overflow-y: auto;
}
.list h3 {
  padding: 8px 18px 2px;
  color: var(--ink-2);
}
.list a {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 7px 14px 7px 18px;
  min-height: 36px;
  color: var(--ink);
  text-decoration: none;
  font-stretch: 80%;
  border-left: 3px solid transparent;
}
.list a[aria-current] {
  border-left-color: var(--ember);
  background: var(--sheet);
  font-weight: 620;
}
.page {
  padding: 14px 20px 20px;
  overflow: auto;
  display: grid;
  gap: 8px;
  align-content: start;
  min-width: 0;
}
.small-pick {
  display: none;
}
.head {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
}
.head h2 {
  flex: 1;
  font-size: 24px;
}
input {
  min-height: 44px;
  width: 240px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 12px;
  font: inherit;
  font-size: 16px;
}
.notes summary {
  cursor: pointer;
  min-height: 24px;
}
.notes p {
  max-width: 80em;
}
.scroll {
  overflow: auto;
  max-height: calc(100dvh - 240px);
}
table {
  border-collapse: collapse;
  font-size: 14.5px;
  font-stretch: 82%;
}
thead th {
  position: sticky;
  top: 0;
  background: var(--paper);
  border-bottom: 2px solid var(--ink-2);
  text-align: left;
  vertical-align: bottom;
  font-weight: 600;
  line-height: 1.15;
}
th,
td {
  padding: 5px 14px 5px 0;
  border-bottom: 1px solid var(--hair-2);
  white-space: nowrap;
}
thead th {
  white-space: normal;
  min-width: 3.4em;
  max-width: 8em;
}
td:first-child {
  font-weight: 640;
  position: sticky;
  left: 0;
  background: var(--paper);
}
.number {
  text-align: right;
}
.long {
  white-space: normal;
  min-width: 22em;
}
.unit {
  display: block;
  font-weight: 400;
  color: var(--ink-2);
  font-size: 12.5px;
}
.source {
  font-size: 12.5px;
}
@media (max-width: 760px) {
  .bench,
  .book {
    display: block;
    height: auto;
  }
  .list {
    display: none;
  }
  .small-pick {
    display: block;
    min-height: 44px;
    font: inherit;
    border: 1px solid var(--hair);
    border-radius: 3px;
    background: var(--sheet);
    color: var(--ink);
    padding: 0 8px;
  }
  .head h2 {
    display: none;
  }
  .page {
    padding: 10px 12px 16px;
    overflow: visible;
  }
  input {
    flex: 1;
    width: auto;
    min-width: 0;
  }
}
@media print {
  .bench,
  .book {
    display: block;
    height: auto;
  }
  .page {
    overflow: visible;
    padding: 0;
  }
  .scroll {
    overflow: visible;
    max-height: none;
  }
  table {
    font-size: 10px;
  }
}
</style>
