<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Sheet } from '../api/client'
import { inSystem, say } from '../settings'
import OriginMark from './OriginMark.vue'
import SymbolText from './SymbolText.vue'

/** The working of a figure: formula, numbers, source, limits; a computed number in it opens its own. */
const opened = defineModel<string | null>({ required: true })
const { figures } = defineProps<{ figures: Sheet['figures'] }>()
const trail = ref<string[]>([])
watch(opened, (key, before) => {
  if (!key) trail.value = []
  else if (!before) trail.value = [key]
})
const figure = computed(() => figures[trail.value.at(-1) ?? ''])
const CONFIDENCE: Record<string, string> = {
  high: 'remembered with high confidence',
  medium: 'remembered with medium confidence',
  low: 'low confidence: check it before relying on it',
}
</script>

<template>
  <el-drawer
    :model-value="opened !== null"
    :size="440"
    title="Working"
    append-to-body
    class="working"
    @close="opened = null"
  >
    <div v-if="figure" class="stack">
      <button v-if="trail.length > 1" class="bare back" type="button" @click="trail.pop()">
        ‹ back to {{ say(figures[trail.at(-2)!]?.label ?? '') }}
      </button>
      <h2>{{ say(figure.label) }}</h2>
      <div class="result cond">
        {{ figure.us }}
        <span v-if="figure.si !== figure.us" class="soft">= {{ figure.si }}</span>
      </div>
      <p v-if="figure.plus_minus_us" class="small soft">
        ± {{ inSystem({ us: figure.plus_minus_us, si: figure.plus_minus_si }) }} (95 %). Largest doubt:
        {{ say(figure.largest_doubt) }}.
      </p>
      <p class="row small">
        <OriginMark :origin="figure.origin" :weakest="figure.weakest" />
        {{
          figure.weakest === figure.origin
            ? figure.origin
            : `${figure.origin}, as weak as its weakest input: ${figure.weakest}`
        }}
      </p>
      <template v-if="figure.working">
        <code class="formula"><SymbolText :text="figure.working.formula" /></code>
        <table>
          <caption class="sr">
            Numbers put in
          </caption>
          <tbody>
            <tr v-for="(line, index) in figure.working.lines" :key="index">
              <th scope="row"><SymbolText :text="line.symbol" /></th>
              <td>{{ say(line.label) }}</td>
              <td class="number">
                <button
                  v-if="line.figure && line.figure !== figure.key && figures[line.figure]"
                  type="button"
                  class="bare opens"
                  @click="trail.push(line.figure)"
                >
                  {{ inSystem(line) }}
                </button>
                <span v-else>{{ inSystem(line) }}</span>
              </td>
              <td><OriginMark :origin="line.origin" :weakest="line.weakest" /></td>
            </tr>
          </tbody>
        </table>
        <p v-if="figure.working.limits" class="small">
          <b>Holds:</b>
          {{ say(figure.working.limits) }}
        </p>
        <p v-if="figure.working.note" class="small">{{ say(figure.working.note) }}</p>
        <p class="small soft">Source: {{ figure.working.source }}; {{ CONFIDENCE[figure.working.confidence] }}.</p>
      </template>
    </div>
  </el-drawer>
</template>

<style scoped>
.result {
  font-size: 26px;
  font-weight: 640;
}
.formula {
  display: block;
  padding: 10px 12px;
  background: var(--paper);
  border-left: 3px solid var(--ink);
  font: 500 15px/1.5 var(--font);
  font-stretch: 88%;
  overflow-wrap: anywhere;
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 14px;
}
th {
  text-align: left;
  font-weight: 500;
  white-space: nowrap;
  padding-right: 8px;
}
td,
th {
  border-bottom: 1px solid var(--hair-2);
  padding: 6px 4px;
  vertical-align: top;
}
.number {
  text-align: right;
  white-space: normal;
}
.opens {
  text-decoration: underline dotted;
  text-underline-offset: 3px;
  text-align: right;
}
.back {
  color: var(--quench);
}
</style>
