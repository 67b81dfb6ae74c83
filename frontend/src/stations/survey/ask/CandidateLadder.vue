<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Identified } from '../../../api/client'
import { inSystem, say } from '../../../settings'

/** The candidates, likeliest first, each with how every measurement fits it and the names to choose from. */
const { identified, chosen } = defineProps<{ identified: Identified; chosen: string }>()
const emit = defineEmits<{ choose: [designation: string, section: string] }>()
const answer = computed(() => identified.answer)
const opened = ref<string | null>(null)
const isOpen = (section: string, i: number) => (opened.value === null ? i === 0 : opened.value === section)
const percent = (share: number) => (share > 0.99 ? '> 99 %' : share < 0.01 ? '< 1 %' : `${Math.round(share * 100)} %`)
const SIGNS: Record<string, string> = { fits: '✓', 'a little off': '~', 'hardly fits': '▲', 'does not fit': '■' }
</script>

<template>
  <section v-if="answer.candidates.length" class="ladder" aria-label="Candidates">
    <h3>
      Candidates
      <span class="soft small">by likelihood</span>
    </h3>
    <ol>
      <li v-for="(c, i) in answer.candidates" :key="c.section" :class="{ first: i === 0 }">
        <button
          type="button"
          class="bare head"
          :aria-expanded="isOpen(c.section, i)"
          @click="opened = isOpen(c.section, i) ? '' : c.section"
        >
          <b class="name">{{ c.section }}</b>
          <span class="soft what">{{ c.what }}</span>
          <span class="bar" aria-hidden="true"><i :style="{ width: `${Math.max(1, c.share * 100)}%` }" /></span>
          <span class="share">{{ percent(c.share) }}</span>
        </button>
        <div v-if="isOpen(c.section, i)" class="body">
          <table v-if="c.fits.length">
            <caption class="sr">
              How each measurement fits
              {{
                c.section
              }}
            </caption>
            <tbody>
              <tr v-for="f in c.fits" :key="f.label">
                <th scope="row">{{ f.label }}</th>
                <td>{{ inSystem({ us: f.read_us, si: f.read_si }) }}</td>
                <td class="soft">expected {{ inSystem({ us: f.expected_us, si: f.expected_si }) }}</td>
                <td :class="{ ok: f.fit === 'fits', ember: f.fit.endsWith('fit') }">
                  <span aria-hidden="true">{{ SIGNS[f.fit] }}</span>
                  {{ f.fit }}
                </td>
              </tr>
            </tbody>
          </table>
          <p v-if="c.names.length" class="names">
            <button
              v-for="n in c.names"
              :key="n.designation"
              type="button"
              class="pick"
              :class="{ on: chosen === n.designation }"
              :aria-pressed="chosen === n.designation"
              @click="emit('choose', n.designation, n.section)"
            >
              <b>{{ n.designation }}</b>
              <span class="small soft">
                {{ inSystem({ us: n.outside_us, si: n.outside_si }) }} over the back
                <template v-if="c.names.length > 1">· {{ percent(n.share) }}</template>
                <template v-if="!n.listed">· not on the list</template>
              </span>
            </button>
          </p>
          <p v-else class="small soft">
            No length yet: tape over the back, or read the label, and the names to ask for stand here.
          </p>
          <p v-if="c.same_as.length" class="small soft">
            The same belt: {{ c.same_as.map((n) => n.designation).join(', ') }}.
          </p>
        </div>
      </li>
    </ol>
    <p v-if="answer.none_of_them > 0.02" class="small soft">
      {{ percent(answer.none_of_them) }} that it is in none of the tables.
    </p>
    <details class="small soft">
      <summary>How the shares are worked out</summary>
      {{ answer.method }}
    </details>
    <ul v-if="answer.statements.length" class="alike">
      <li v-for="s in answer.statements" :key="s.sections" :class="s.kind">
        <b>
          {{
            { same: 'Same belt', near: 'Near, not the same', alike: 'Only looks alike', groove: 'Same groove' }[s.kind]
          }}
        </b>
        {{ say(s.sentence) }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
.ladder {
  display: grid;
  gap: 8px;
  align-content: start;
}
ol,
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
ol li {
  border-top: 1px solid var(--hair-2);
}
.head {
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr) 96px 52px;
  gap: 10px;
  align-items: center;
  width: 100%;
  min-height: 40px;
}
.name {
  font-size: 18px;
  font-stretch: 76%;
  font-weight: 640;
  white-space: nowrap;
}
.what {
  font-size: 13.5px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.bar {
  height: 6px;
  background: var(--hair-2);
  display: block;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--ink-2);
}
.first .bar i {
  background: var(--ink);
}
.share {
  text-align: right;
  font-stretch: 76%;
  font-weight: 600;
  white-space: nowrap;
}
.body {
  padding: 0 0 10px;
  display: grid;
  gap: 6px;
}
table {
  max-width: 620px;
  border-collapse: collapse;
  font-size: 14px;
}
th {
  text-align: left;
  font-weight: 400;
  padding: 1px 14px 1px 0;
}
td {
  padding: 1px 14px 1px 0;
  white-space: nowrap;
}
.ok {
  color: var(--within);
}
.names {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.pick {
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  padding: 4px 12px;
  min-height: 44px;
  display: grid;
  text-align: left;
  cursor: pointer;
  line-height: 1.2;
}
.pick b {
  font-stretch: 76%;
  font-size: 17px;
}
.pick.on {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 1px var(--ink);
}
.alike {
  display: grid;
  gap: 6px;
  font-size: 13.5px;
  border-top: 1px solid var(--hair-2);
  padding-top: 8px;
}
.alike b {
  font-stretch: 78%;
  margin-right: 4px;
}
.alike .alike b,
.alike .near b {
  color: var(--ember);
}
@media (max-width: 480px) {
  .head {
    grid-template-columns: 58px minmax(0, 1fr) 50px 50px;
  }
}
</style>
