<script setup lang="ts">
import { computed, inject } from 'vue'

import { inSystem, say } from '../../settings'
import { sheetKey } from '../../sheet/useSheet'

/** How each shaft of a train turns, without slip, and how fast each belt runs. */
const state = inject(sheetKey)!
const train = computed(() => state.train.value)
</script>

<template>
  <section v-if="train">
    <h3>Each shaft, without slip</h3>
    <table>
      <thead>
        <tr>
          <th scope="col">Shaft</th>
          <th scope="col" class="n">Speed</th>
          <th scope="col" class="n">{{ 'Driver\u00a0: shaft' }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="s in train.shafts" :key="s.name">
          <th scope="row">{{ s.name }}</th>
          <td class="n">{{ s.speed ? inSystem(s.speed) : '–' }}</td>
          <td class="n">{{ s.ratio || '–' }}</td>
        </tr>
      </tbody>
    </table>
    <p v-for="s in train.stages" :key="s.number" class="small soft">
      {{ say(s.title) }}: {{ s.runs }} {{ s.belt_speed ? inSystem(s.belt_speed) : '–'
      }}{{ s.ratio ? `, ratio ${s.ratio}` : '' }}
    </p>
  </section>
</template>

<style scoped>
section {
  border-top: 1px solid var(--hair);
  padding-top: 10px;
  display: grid;
  gap: 8px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
}
th,
td {
  text-align: left;
  padding: 8px 6px;
  border-bottom: 1px solid var(--hair-2);
  vertical-align: baseline;
}
thead th {
  font-weight: 560;
  font-size: 13.5px;
}
tbody th {
  font-weight: 500;
}
.n {
  text-align: right;
  white-space: nowrap;
}
p {
  margin: 0;
}
</style>
