<script setup lang="ts">
import { computed, inject } from 'vue'

import { when } from '../../words'
import { alignKey, type AlignmentKept } from './useAlign'

/** As found beside as left: the last round of this pair that is on the record. */
const desk = inject(alignKey)!
const kept = computed(() => desk.before.value)
const left = computed(() => kept.value.find((k) => k.standing === 'as left'))
const found = computed(() =>
  kept.value.find((k) => k.standing === 'as found' && (!left.value || k.at <= left.value.at)),
)
const newer = computed(() => (kept.value[0] && kept.value[0] !== left.value && kept.value[0] !== found.value ? kept.value[0] : null)) // prettier-ignore
const columns = computed(() => [found.value, left.value, newer.value].filter((k): k is AlignmentKept => Boolean(k)))
const ROWS = ['angle', 'twist', 'offset'] as const
const out = (k: AlignmentKept, row: (typeof ROWS)[number]) =>
  k[row] !== null && Math.abs(k[row]!) > (row === 'offset' ? k.offset_allowed : k.angle_allowed)
</script>

<template>
  <table v-if="columns.length">
    <thead>
      <tr>
        <th scope="col"><span class="sr">Error</span></th>
        <th v-for="k in columns" :key="k.id" scope="col">
          {{ k.standing }}<span class="soft small">{{ when(k.at) }}, {{ k.who }}<br />{{ k.method }}</span>
        </th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="r in ROWS" :key="r">
        <th scope="row">{{ r }}</th>
        <td v-for="k in columns" :key="k.id" :class="{ ember: out(k, r) }">
          {{ k.texts[r] ?? '–' }}<span v-if="out(k, r)"> ▲</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
}
th,
td {
  text-align: left;
  padding: 6px 8px 6px 0;
  border-bottom: 1px solid var(--hair-2);
  font-weight: 500;
  vertical-align: top;
}
thead th {
  font-weight: 620;
}
thead span {
  display: block;
  font-weight: 400;
}
td {
  font-size: 16px;
  font-stretch: 80%;
  font-weight: 600;
}
</style>
