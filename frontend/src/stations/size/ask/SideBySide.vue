<script setup lang="ts">
import { computed, inject } from 'vue'

import { inSystem, say } from '../../../settings'
import FamilyMark from '../FamilyMark.vue'
import { sizeDeskKey } from '../useSizeDesk'

/** Up to four drives by their figures; the board draws them to one scale. */
const desk = inject(sizeDeskKey)!
const found = computed(() => desk.candidates.value)
const ROWS = [
  ['design_power', 'design power'],
  ['capacity', 'carries'],
  ['driven_speed', 'driven speed'],
  ['belt_speed', 'belt or chain speed'],
  ['centre_distance', 'centres'],
  ['wrap_driver', 'wrap on the driver'],
  ['tight_strand', 'tight strand'],
  ['slack_strand', 'slack strand'],
  ['shaft_pull', 'pull at work'],
  ['standing_pull', 'pull standing'],
  ['starting_strand', 'tight strand at the start'],
  ['shock_strand', 'tight strand in a jolt'],
] as const
const parts = (n: number) => found.value[n]!.parts.map((p) => `${p.many} × ${say(p.name)}`)
</script>

<template>
  <div class="station">
    <p v-if="!found.length" class="soft">Put drives side by side with + in the list under “Options”.</p>
    <template v-else>
      <article v-for="(c, n) in found" :key="c.key" class="one">
        <h3>
          <FamilyMark :family="c.family" /> {{ say(c.name) }}
          <button type="button" class="bare off" :aria-label="`Take ${c.name} off`" @click="desk.besides(c.key)">
            ×
          </button>
        </h3>
        <p v-if="c.failures.length" class="ember small">▲ {{ say(c.failures[0]!.detail) }}</p>
        <ul class="small">
          <li v-for="p in parts(n)" :key="p">{{ p }}</li>
        </ul>
      </article>
      <div class="scroll">
        <table>
          <caption class="sr">
            Side by side
          </caption>
          <thead>
            <tr>
              <td />
              <th v-for="c in found" :key="c.key" scope="col">{{ say(c.name) }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-if="found.some((c) => c.price)">
              <th scope="row">price by your list</th>
              <td v-for="c in found" :key="c.key">{{ c.price || '–' }}</td>
            </tr>
            <tr v-for="[key, label] in ROWS" :key="key">
              <th scope="row">{{ label }}</th>
              <td v-for="c in found" :key="c.key">
                {{ c.sheet?.figures[key] ? inSystem(c.sheet.figures[key]!) : '–' }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </div>
</template>

<style src="../../survey/ask/ask.css" scoped></style>
<style scoped>
.one {
  border-top: 1px solid var(--hair);
  padding-top: 6px;
}
h3 {
  display: flex;
  gap: 8px;
  align-items: center;
}
.off {
  margin-left: auto;
  width: 44px;
  height: 44px;
  font-size: 20px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: right;
  padding: 4px 6px;
  border-top: 1px solid var(--hair-2);
  font-size: 13.5px;
  font-stretch: 76%;
}
th[scope='row'] {
  text-align: left;
  font-weight: 400;
  color: var(--ink-2);
}
</style>
