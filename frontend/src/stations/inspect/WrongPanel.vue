<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, inject, ref } from 'vue'

import type { Choices, DriveOut } from '../../api/client'
import { say } from '../../settings'
import CautionStrip from '../../sheet/CautionStrip.vue'
import { inspectKey } from './useInspect'
import CauseWays from './CauseWays.vue'
import NextCheck from './NextCheck.vue'
import SignList from './SignList.vue'
import TriageSteps from './TriageSteps.vue'

/** What is wrong: said in one's own words or tapped, with what the record knows; causes ranked, and one check at a time. */
defineOptions({ inheritAttrs: false })
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const desk = inject(inspectKey)!
const { told, answer: a } = desk
const narrow = useMediaQuery('(max-width: 760px)')
const causes = computed(() => (a.value?.diagnosis.causes ?? []).slice(0, 5))
const first = computed(() => causes.value[0])
const headline = computed(() => {
  if (!desk.something.value) return 'Tap what is seen, heard or felt'
  if (!a.value?.diagnosis.enough_to_tell) return 'Not enough to tell yet'
  return first.value?.name ?? ''
})
/** On a phone the signs are open until somebody comes back to what was told. */
const signsOpen = ref(!desk.something.value)
const nearly = computed(() => {
  const keys = a.value?.diagnosis.nearly ?? []
  return causes.value.filter((c) => keys.includes(c.key)).map((c) => c.name)
})
/** What the words may mean; what was taken stands below, once. */
const offered = computed(() =>
  (desk.matched.value ?? []).filter((m) => !told.value.seen.includes(m.key) && !told.value.notSeen.includes(m.key)),
)
const percent = (p: number) => (p >= 0.995 ? 'nearly sure' : `${Math.round(p * 100)} in 100`)
const asks = computed(() => desk.something.value && !a.value?.triage.length)
const answered = (key: string) => {
  const said = told.value.checks[key]
  return said === true ? 'yes' : said === false ? 'no' : said === 'cannot' ? 'cannot' : String(said)
}
</script>

<template>
  <div class="station">
    <div class="verdict" :class="{ told: a?.diagnosis.enough_to_tell && desk.something.value }" aria-live="polite">
      <h3>{{ say(headline) }}</h3>
      <p v-if="a?.diagnosis.enough_to_tell && desk.something.value && first">{{ say(first.do) }}</p>
      <template v-else-if="desk.something.value && first">
        <p v-if="nearly.length" class="small">About as likely: {{ nearly.map(say).join('; ') }}.</p>
        <p v-else class="small">Likeliest so far: {{ say(first.name) }}.</p>
      </template>
    </div>
    <CauseWays v-if="desk.something.value && first" :drive="drive" :cause="first" />
    <p v-if="desk.unreachable.value" class="small ember">
      No answer from the server. What you tapped is kept here.
      <button type="button" class="bare" @click="desk.again()"><u>Ask again</u></button>
    </p>
    <CautionStrip :cautions="choices.cautions.tension" state="Look with the machine isolated." />
    <NextCheck v-if="asks" />
    <details
      v-if="narrow"
      class="fold"
      :open="signsOpen"
      @toggle="signsOpen = ($event.target as HTMLDetailsElement).open"
    >
      <summary>What is seen, heard or felt</summary>
      <SignList />
    </details>
    <label class="own">
      <span>Or say it in your own words</span>
      <input
        v-model="desk.words.value"
        data-entry
        maxlength="300"
        placeholder="it squeals when it starts and smells"
        @input="desk.look()"
      />
    </label>
    <div v-if="desk.matched.value" class="chips" role="group" aria-label="Did you mean">
      <button v-for="m in offered" :key="m.key" type="button" @click="m.no ? desk.deny(m.key) : desk.see(m.key)">
        {{ m.no ? 'Not so: ' : '+ ' }}{{ say(m.question) }}
      </button>
      <p v-if="!desk.matched.value.length" class="small soft">Nothing fits that: tap a place on the picture.</p>
    </div>
    <ul v-if="told.seen.length || told.notSeen.length" class="told-list">
      <li v-for="k in told.seen" :key="k">
        ✓ {{ say(desk.question(k)) }}
        <button type="button" class="bare" :aria-label="`Take back: ${desk.question(k)}`" @click="desk.take(k)">
          ×
        </button>
      </li>
      <li v-for="k in told.notSeen" :key="k" class="soft">
        – {{ say(desk.question(k)) }}
        <button type="button" class="bare" :aria-label="`Take back: ${desk.question(k)}`" @click="desk.tap(k)">
          ×
        </button>
      </li>
    </ul>
    <TriageSteps />
    <ol v-if="desk.something.value" class="causes">
      <li v-for="c in causes" :key="c.key">
        <details :open="c === first">
          <summary>
            <b>{{ say(c.name) }}</b>
            <span class="chance">{{ percent(c.probability) }}</span>
            <span class="bar" aria-hidden="true"><i :style="{ width: `${c.probability * 100}%` }" /></span>
          </summary>
          <p v-for="f in c.for" :key="f" class="small">+ {{ say(f) }}</p>
          <p v-for="f in c.against" :key="f" class="small soft">− {{ say(f) }}</p>
          <p class="small do">{{ say(c.do) }}</p>
        </details>
      </li>
    </ol>
    <details v-if="a?.known.length" class="fold" :open="desk.something.value">
      <summary>What the record knows enters by itself</summary>
      <label v-for="f in a.known" :key="f.key" class="fact">
        <input
          type="checkbox"
          :checked="f.used"
          @change="desk.useFact(f.key, ($event.target as HTMLInputElement).checked)"
        />
        <span
          >{{ say(f.question) }}: <b>{{ f.value }}</b> <span class="soft">({{ f.source }})</span></span
        >
      </label>
    </details>
    <ul v-if="a?.checks.length" class="told-list">
      <li v-for="c in a.checks" :key="c.key">
        {{ say(c.question) }} <b>{{ answered(c.key) }}</b>
        <button type="button" class="bare" :aria-label="`Take back: ${c.question}`" @click="desk.uncheck(c.key)">
          ×
        </button>
      </li>
    </ul>
    <button v-if="desk.something.value" type="button" class="bare again" @click="desk.clear()">
      <u class="small">Begin again</u>
    </button>
    <p class="small soft">
      Judged numbers from common practice: a help for whoever looks, not in their place. The machine’s manual and
      licensed practice come first.
    </p>
  </div>
</template>

<style scoped>
.station {
  padding: 16px 18px 24px;
  display: grid;
  gap: 14px;
}
.verdict {
  border-left: 4px solid var(--ink-2);
  padding: 2px 0 2px 12px;
  display: grid;
  gap: 4px;
}
@media (max-width: 760px) {
  .verdict {
    position: sticky;
    top: 0;
    z-index: 2;
    background: var(--sheet);
  }
}
.verdict.told {
  border-left-color: var(--ember);
}
h3 {
  font-size: 20px;
}
.own {
  display: grid;
  gap: 3px;
  font-size: 13.5px;
  font-weight: 560;
}
.own input {
  min-height: 46px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  font-size: 16px;
  padding: 0 10px;
}
.chips {
  display: grid;
  gap: 5px;
}
.chips button {
  min-height: 44px;
  text-align: left;
  border: 1px dashed var(--ink-2);
  border-radius: 3px;
  background: none;
  padding: 6px 10px;
  cursor: pointer;
}
.told-list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 2px;
  font-size: 14px;
}
.told-list li {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
}
.told-list .bare {
  min-width: 36px;
  min-height: 36px;
  font-size: 20px;
  text-align: center;
}
.causes {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 4px;
}
.causes summary {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
  padding: 8px 0;
  cursor: pointer;
  list-style: none;
  min-height: 44px;
}
.causes details {
  border-bottom: 1px solid var(--hair-2);
  padding-bottom: 4px;
}
.chance {
  font-stretch: 76%;
  white-space: nowrap;
}
.bar {
  grid-column: 1 / -1;
  height: 5px;
  background: var(--hair-2);
}
.bar i {
  display: block;
  height: 100%;
  background: var(--ink);
}
.do {
  padding: 4px 0 6px;
  font-weight: 560;
}
.fold summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  cursor: pointer;
  font-weight: 560;
}
.fold summary::after {
  content: '▾';
  color: var(--ink-2);
  margin-left: auto;
}
.fold[open] summary::after {
  content: '▴';
}
.fact {
  display: grid;
  grid-template-columns: 26px 1fr;
  gap: 6px;
  align-items: start;
  min-height: 36px;
  font-size: 14px;
}
.fact input {
  width: 20px;
  height: 20px;
}
.again {
  min-height: 44px;
}
</style>
