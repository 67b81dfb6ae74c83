<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'

import { useDrive, useMayWrite } from '../api/queries'
import { say, settings } from '../settings'
import { when } from '../words'
import MachineAsks from './MachineAsks.vue'
import { type JobKind, useJobPreview, useJobs, useStartJob } from './useJobs'

/** The jobs of a drive: what is under way, what may be begun and what it asks first, what was signed off; and the paper that lives on it. */
const route = useRoute()
const id = computed(() => String(route.params.id))
const due = computed(() => (typeof route.query.due === 'string' ? route.query.due : ''))
const { data: drive } = useDrive(id)
const { data, error } = useJobs(id)
const mayWrite = useMayWrite()
const chosen = ref(typeof route.query.kind === 'string' ? route.query.kind : '')
const asked = ref<Record<string, string>>({})
const machine = ref<Record<string, boolean>>({})
watch(chosen, () => (asked.value = {}))
watch(
  [() => data.value?.machine, chosen],
  () => {
    const stopped = data.value?.kinds.find((k) => k.key === chosen.value)?.stopped
    machine.value = Object.fromEntries(
      (data.value?.machine ?? []).map((a) => [a.key, a.today ? a.guess && !stopped : (a.kept ?? a.guess)]),
    )
  },
  { immediate: true },
)
const { data: preview } = useJobPreview(id, () => ({
  kind: chosen.value,
  asked: Object.fromEntries(Object.entries(asked.value).filter(([, v]) => v)),
  machine: machine.value,
}))
const long = computed(() => {
  if (!preview.value || preview.value.kind !== chosen.value) return ''
  const steps = `${preview.value.steps.length} steps`
  return preview.value.lacking.length ? `about ${steps}` : steps
})
/** The options that another answer leaves: a flanged bushing's sizes are not a taper bushing's. */
const options = (a: JobKind['asks'][number]) => a.narrowed?.[asked.value[a.by ?? ''] ?? ''] ?? a.options
const { start, busy, problem } = useStartJob(`begin-${id.value}`)
const kind = computed(() => data.value?.kinds.find((k) => k.key === chosen.value) ?? null)
const dueWhat = computed(() => drive.value?.dues.find((d) => d.key === due.value)?.what ?? '')
/** A question may hang on another's answer: `hub=taper bushing`. */
const asks = (k: JobKind) =>
  k.asks.filter((a) =>
    a.when.every(
      (term) =>
        !term.includes('=') ||
        term.split('|').some((t) => {
          const [key, value] = t.split('=')
          return asked.value[key!] === value
        }),
    ),
  )
const wrong = (key: string) => problem.value?.errors?.find((e) => e.field === `asked.${key}`)?.detail
</script>

<template>
  <div class="jobs">
    <header>
      <router-link :to="`/drives/${id}`" class="back" aria-label="Back to the drive">‹</router-link>
      <div>
        <h1>{{ drive?.machine ?? 'Jobs' }}</h1>
        <p v-if="drive" class="soft">{{ drive.name }} · {{ drive.place }}</p>
      </div>
    </header>
    <p v-if="error" role="alert">{{ error.message }}</p>
    <p v-else-if="!data" class="soft">Reading what may be done here…</p>
    <template v-else>
      <section v-if="data.open.length" class="left">
        <h2>Under way and waiting</h2>
        <router-link v-for="j in data.open" :key="j.id" :to="`/jobs/${j.id}`" class="open">
          <b>{{ j.title }}</b>
          <span>{{ j.standing === 'waiting' ? 'waiting' : `${j.done} of ${j.of} done` }} · {{ j.who }}</span>
          <span v-if="j.at_step" class="soft">{{ say(j.at_step) }}</span>
        </router-link>
      </section>
      <section v-if="mayWrite" class="left">
        <h2>{{ dueWhat ? `Which job does it? ${dueWhat}` : 'Begin a job' }}</h2>
        <ul>
          <li v-for="k in data.kinds" :key="k.key" :class="{ chosen: k.key === chosen }">
            <button
              type="button"
              class="kind"
              :aria-expanded="k.key === chosen"
              @click="chosen = chosen === k.key ? '' : k.key"
            >
              <b>{{ say(k.title) }}</b>
              <span class="soft">{{ say(k.about) }}</span>
              <span class="small"
                >{{ (k.key === chosen && long) || `about ${k.steps} steps` }}, about {{ k.minutes }} min</span
              >
            </button>
            <form v-if="kind && k.key === chosen" class="ask" @submit.prevent="start(id, k.key, asked, due, machine)">
              <fieldset v-for="a in asks(k)" :key="a.key">
                <legend>{{ say(a.question) }}</legend>
                <select v-if="a.options.length > 7" v-model="asked[a.key]" :aria-label="a.question">
                  <option v-for="o in options(a)" :key="o" :value="o">{{ o }}</option>
                </select>
                <div v-else-if="a.options.length" class="choose">
                  <button
                    v-for="o in a.options"
                    :key="o"
                    type="button"
                    :aria-pressed="asked[a.key] === o"
                    @click="asked = { ...asked, [a.key]: o }"
                  >
                    {{ say(o) }}
                  </button>
                  <p v-if="a.notes?.[asked[a.key] ?? '']" class="ember small">{{ say(a.notes[asked[a.key]!]!) }}</p>
                </div>
                <input
                  v-else
                  v-model="asked[a.key]"
                  maxlength="60"
                  :aria-label="a.question"
                  :placeholder="a.optional ? 'as the survey has it' : ''"
                />
                <p v-if="wrong(a.key)" class="ember small">{{ wrong(a.key) }}</p>
              </fieldset>
              <MachineAsks v-model="machine" :asks="data.machine" />
              <p v-if="problem && !problem.errors?.length" class="ember" role="alert">{{ problem.detail }}</p>
              <button type="submit" class="begin" :disabled="busy">
                Begin<span v-if="long" class="small">&ensp;{{ long }}</span>
              </button>
            </form>
          </li>
        </ul>
      </section>
      <aside>
        <h2>Paper for the machine</h2>
        <p class="paper">
          <a :href="`/api/drives/${id}/card.pdf?size=A6&system=${settings.system}`" target="_blank">Drive card A6</a>
          <a :href="`/api/drives/${id}/card.pdf?size=A5&system=${settings.system}`" target="_blank">A5</a>
          <a :href="`/api/drives/${id}/card.pdf?size=half&system=${settings.system}`" target="_blank">half letter</a>
          <a :href="`/api/drives/${id}/card.svg?system=${settings.system}`" target="_blank">SVG</a>
          <a :href="`/api/drives/${id}/card.pdf?size=label&system=${settings.system}`" target="_blank">Guard label</a>
          <a :href="`/api/drives/${id}/card.svg?size=label&system=${settings.system}`" target="_blank">SVG</a>
        </p>
        <template v-if="data.before.length">
          <h2>Signed off</h2>
          <router-link v-for="j in data.before" :key="j.id" :to="`/jobs/${j.id}`" class="ended">
            <b>{{ j.title }}</b>
            <span class="small soft">{{ j.said }} · {{ j.who }}, {{ when(j.finished_at!) }}</span>
          </router-link>
        </template>
      </aside>
    </template>
  </div>
</template>

<style src="./choose.css" scoped></style>

<style scoped>
.jobs {
  padding: 16px 26px 40px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 290px;
  gap: 20px 34px;
  align-content: start;
}
header,
.left {
  grid-column: 1;
}
header,
.jobs > p {
  grid-column: 1 / -1;
}
aside {
  grid-column: 2;
  grid-row: 2 / span 3;
}
.ended {
  display: grid;
  padding: 8px 0;
  color: inherit;
  text-decoration: none;
  border-bottom: 1px solid var(--hair);
}
header {
  display: flex;
  gap: 14px;
  align-items: center;
}
.back {
  font-size: 26px;
  padding: 4px 12px;
  text-decoration: none;
}
h2 {
  font-size: 17px;
  padding-bottom: 6px;
  border-bottom: 1px solid var(--hair);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.kind,
.open {
  display: grid;
  grid-template-columns: 240px 1fr auto;
  gap: 4px 18px;
  align-items: baseline;
  width: 100%;
  min-height: 56px;
  padding: 12px 8px;
  border: 0;
  border-bottom: 1px solid var(--hair);
  background: none;
  color: inherit;
  text-align: left;
  text-decoration: none;
  font-size: 15px;
  cursor: pointer;
}
.kind b,
.open b {
  font-size: 17px;
  font-stretch: 82%;
}
.kind:hover,
.open:hover {
  background: var(--sheet);
}
.chosen {
  background: var(--sheet);
  box-shadow: inset 4px 0 0 var(--ember);
}
.ask {
  display: grid;
  gap: 14px;
  padding: 12px 16px 18px;
}
.begin {
  min-height: 56px;
  border: 0;
  border-radius: 3px;
  background: var(--ink);
  color: var(--paper);
  font-size: 19px;
  font-weight: 640;
  cursor: pointer;
}
.paper {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  padding-top: 6px;
}
.paper a {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
@media (max-width: 760px) {
  .jobs {
    grid-template-columns: minmax(0, 1fr);
    padding: 8px 14px 30px;
  }
  aside {
    grid-column: 1;
    grid-row: auto;
  }
  .kind,
  .open {
    grid-template-columns: 1fr;
  }
}
</style>
