<script setup lang="ts">
import { computed } from 'vue'

import { inSystem, say } from '../../settings'
import FamilyMark from './FamilyMark.vue'
import { SIDE_BY_SIDE, type SizeAnswer } from './useSizeAsk'

/** The drives that would do, best first by what is weighed; one row a pair of wheels, its best length. */
const { answer, chosen, beside } = defineProps<{ answer: SizeAnswer; chosen: string; beside: string[] }>()
const priced = computed(() => answer.listed.some((c) => c.price))
const emit = defineEmits<{ choose: [key: string]; beside: [key: string] }>()
</script>

<template>
  <table class="drives">
    <caption class="sr">
      Drives that would do, best first
    </caption>
    <thead>
      <tr>
        <th scope="col">drive</th>
        <th scope="col">to spare</th>
        <th scope="col">speed</th>
        <th scope="col">pull</th>
        <th scope="col">width</th>
        <th scope="col">centres</th>
        <th v-if="priced" scope="col">price</th>
        <th scope="col"><span class="sr">put side by side</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="c in answer.listed" :key="c.key" :class="{ here: c.key === chosen }" :data-drive="c.key">
        <th scope="row">
          <button type="button" class="bare pick" :aria-pressed="c.key === chosen" @click="emit('choose', c.key)">
            <FamilyMark :family="c.family" />
            <span>
              <b>{{ say(c.name) }}</b>
              <span v-if="c.best" class="best" title="Nothing beats it on both axes of the plot"> ● unbeaten</span>
              <br /><span class="small soft"
                >{{ say(c.driver) }} → {{ say(c.driven) }} · {{ c.length
                }}<template v-if="c.estimate"> · estimate</template></span
              ><span v-if="c.caution" class="small ember"> ▲ {{ say(c.caution) }}</span>
            </span>
          </button>
        </th>
        <td>{{ c.margin }}</td>
        <td>
          {{ inSystem(c.speed) }}<br /><span class="small soft">{{ c.off }}</span>
        </td>
        <td>{{ inSystem(c.pull) }}</td>
        <td>{{ inSystem(c.width) }}</td>
        <td>{{ inSystem(c.centre) }}</td>
        <td v-if="priced">{{ c.price || '–' }}</td>
        <td>
          <button
            type="button"
            class="bare beside"
            :aria-pressed="beside.includes(c.key)"
            :disabled="!beside.includes(c.key) && beside.length >= SIDE_BY_SIDE"
            :aria-label="`${c.name} side by side`"
            title="Put side by side"
            @click="emit('beside', c.key)"
          >
            {{ beside.includes(c.key) ? '✓' : '+' }}
          </button>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.drives {
  border-collapse: collapse;
  width: 100%;
}
thead th {
  font-weight: 400;
  font-size: 12.5px;
  color: var(--ink-2);
  text-align: right;
  padding: 4px 8px;
  position: sticky;
  top: 0;
  background: var(--paper);
  z-index: 1;
}
thead th:first-child {
  text-align: left;
  padding-left: 16px;
}
tbody th {
  text-align: left;
  font-weight: 400;
}
td {
  text-align: right;
  padding: 2px 8px;
  white-space: nowrap;
  font-stretch: 80%;
}
tr + tr > *,
tbody tr:first-child > * {
  border-top: 1px solid var(--hair-2);
}
.pick {
  display: grid;
  grid-template-columns: 22px 1fr;
  gap: 8px;
  align-items: center;
  text-align: left;
  width: 100%;
  min-height: 48px;
  padding: 4px 8px 4px 14px;
}
.here {
  background: var(--sheet);
  box-shadow: inset 3px 0 0 var(--ember);
}
.best {
  font-size: 12px;
  white-space: nowrap;
}
.beside {
  width: 44px;
  height: 44px;
  font-size: 20px;
}
.beside[aria-pressed='true'] {
  color: var(--quench);
  font-weight: 700;
}
@media (max-width: 760px) {
  thead th:nth-child(3),
  td:nth-child(3),
  thead th:nth-child(6),
  td:nth-child(6) {
    display: none;
  }
  td {
    padding: 2px 4px;
    font-size: 13.5px;
  }
}
</style>
