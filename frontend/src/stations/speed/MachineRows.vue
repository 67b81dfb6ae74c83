<script setup lang="ts">
import type { components } from '../../api/schema'
import { inSystem } from '../../settings'

/** What the machine and its motor feel: now, and at another speed. */
const { rows, at } = defineProps<{ rows: components['schemas']['RowOut'][]; at: string }>()
const percent = (share: number) => `${share > 0 ? '+' : ''}${Math.round(share * 100)} %`
</script>

<template>
  <table v-if="rows.length" class="why">
    <caption>
      What the machine feels,
      {{
        at
      }}
    </caption>
    <thead>
      <tr>
        <th scope="col"><span class="sr">quantity</span></th>
        <th scope="col">now</th>
        <th scope="col">then</th>
        <th scope="col">change</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="r in rows" :key="r.key" :data-row="r.key">
        <th scope="row">
          {{ r.label }}
          <span v-if="r.law" class="small soft">{{ r.law }}</span>
        </th>
        <td>{{ r.now ? inSystem(r.now) : '–' }}</td>
        <td>
          <b>{{ r.new ? inSystem(r.new) : '' }}</b>
        </td>
        <td>{{ r.change !== null ? percent(r.change) : '' }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style src="./speed.css" scoped></style>
