<script setup lang="ts">
import { computed, reactive } from 'vue'

import { api, Refused, unwrap } from '../api/client'
import { useSession, useSessionChange } from '../api/queries'
import FactorSlip from './FactorSlip.vue'
import PassphraseSlip from './PassphraseSlip.vue'
import ShowFactor from './ShowFactor.vue'

const { data: session } = useSession()
const form = reactive({ name: '', passphrase: '' })
const first = reactive({ code: '', name: '', passphrase: '', site_name: '' })

const signIn = useSessionChange<void>(() => unwrap(api.POST('/api/session', { body: { ...form } })))
const demo = useSessionChange<string>((id) => unwrap(api.POST('/api/session/demo', { body: { person_id: id } })))
const reset = reactive({ name: '', code: '', wanted: '' })
const choose = useSessionChange<void>(() => unwrap(api.POST('/api/session/reset', { body: { ...reset } })))
const lead = useSessionChange<void>(() => unwrap(api.POST('/api/first-lead', { body: { ...first } })))

const DOES: Record<string, string> = {
  viewer: 'looks, changes nothing',
  mechanic: 'surveys, gauges, keeps readings',
  lead: 'all of it, and runs the plant',
}

function sentences(error: Error | null): Record<string, string> {
  if (!error) return {}
  if (error instanceof Refused && error.problem.errors?.length)
    return Object.fromEntries(error.problem.errors.map((e) => [e.field, e.detail]))
  return { all: error.message }
}
const wrong = computed(() => sentences(signIn.error.value))
const wrongReset = computed(() => sentences(choose.error.value))
const wrongFirst = computed(() => sentences(lead.error.value))
</script>

<template>
  <div class="gate">
    <svg class="plan" viewBox="0 0 640 720" aria-hidden="true" preserveAspectRatio="xMidYMid meet">
      <g fill="none" stroke="currentColor">
        <circle cx="190" cy="500" r="74" />
        <circle cx="190" cy="500" r="20" class="e" />
        <circle cx="190" cy="500" r="70" stroke-dasharray="8 4 2 4" />
        <circle cx="430" cy="250" r="156" />
        <circle cx="430" cy="250" r="34" class="q" />
        <circle cx="430" cy="250" r="152" stroke-dasharray="8 4 2 4" />
        <path
          d="M 129.5 464.8 L 298.6 173.7 A 152 152 0 1 1 511.6 378.2 L 227.6 559.0 A 70 70 0 0 1 129.5 464.8 Z"
          class="b"
        />
        <path d="M190 500 L190 668 M430 250 L430 668 M190 656 H430" stroke-width="0.8" />
      </g>
      <text x="310" y="648">centre distance</text>
    </svg>
    <div class="door stack">
      <div>
        <h1>Tuyere</h1>
        <p class="soft">What is on this machine, how tight, how true, and when to look again.</p>
      </div>

      <form v-if="session?.needs_first_lead" class="stack" @submit.prevent="lead.mutate()">
        <h2>Start this plant</h2>
        <p class="small soft">The start in the terminal printed a one-time code. It makes the first lead.</p>
        <label>
          One-time code
          <el-input v-model="first.code" autocomplete="off" />
          <span v-if="wrongFirst.code" class="wrong">{{ wrongFirst.code }}</span>
        </label>
        <label>
          Name of the site
          <el-input v-model="first.site_name" />
          <span v-if="wrongFirst.site_name" class="wrong">{{ wrongFirst.site_name }}</span>
        </label>
        <label>
          Your name
          <el-input v-model="first.name" autocomplete="username" />
          <span v-if="wrongFirst.name" class="wrong">{{ wrongFirst.name }}</span>
        </label>
        <label>
          Passphrase, 10 characters or more
          <el-input v-model="first.passphrase" type="password" show-password autocomplete="new-password" />
          <span v-if="wrongFirst.passphrase" class="wrong">{{ wrongFirst.passphrase }}</span>
        </label>
        <p v-if="wrongFirst.all" class="wrong" role="alert">{{ wrongFirst.all }}</p>
        <el-button type="primary" native-type="submit" :loading="lead.isPending.value">Make the first lead</el-button>
      </form>

      <PassphraseSlip v-else-if="session?.must === 'choose'" first />
      <ShowFactor v-else-if="session?.must === 'show'" />
      <FactorSlip v-else-if="session?.must === 'add'" first />

      <template v-else>
        <section v-if="session?.demo_people.length" class="stack">
          <h2>Demo plant: come in as</h2>
          <ul>
            <li v-for="person in session.demo_people" :key="person.id">
              <button type="button" class="person" :disabled="demo.isPending.value" @click="demo.mutate(person.id)">
                <b>{{ person.name }}</b>
                <span>{{ person.role }}</span>
                <span class="soft small">{{ DOES[person.role] }}</span>
              </button>
            </li>
          </ul>
          <p v-if="demo.error.value" class="wrong" role="alert">{{ demo.error.value.message }}</p>
        </section>
        <form class="stack" @submit.prevent="signIn.mutate()">
          <h3>Sign in by name</h3>
          <label>
            Name
            <el-input v-model="form.name" autocomplete="username" />
          </label>
          <label>
            Passphrase
            <el-input v-model="form.passphrase" type="password" show-password autocomplete="current-password" />
          </label>
          <p v-if="wrong.passphrase || wrong.all" class="wrong" role="alert">{{ wrong.passphrase ?? wrong.all }}</p>
          <el-button native-type="submit" :loading="signIn.isPending.value">Sign in</el-button>
        </form>
        <details>
          <summary>I have a one-time code</summary>
          <form class="stack" @submit.prevent="choose.mutate()">
            <p class="small soft">A lead hands it over when a passphrase is forgotten. It works once.</p>
            <label>
              Name
              <el-input v-model="reset.name" autocomplete="username" />
            </label>
            <label>
              One-time code
              <el-input v-model="reset.code" autocomplete="off" />
              <span v-if="wrongReset.code" class="wrong">{{ wrongReset.code }}</span>
            </label>
            <label>
              The passphrase you want, 10 characters or more
              <el-input v-model="reset.wanted" type="password" show-password autocomplete="new-password" />
              <span v-if="wrongReset.wanted" class="wrong">{{ wrongReset.wanted }}</span>
            </label>
            <p v-if="wrongReset.all" class="wrong" role="alert">{{ wrongReset.all }}</p>
            <el-button native-type="submit" :loading="choose.isPending.value">Choose it and sign in</el-button>
          </form>
        </details>
      </template>
    </div>
  </div>
</template>

<style scoped>
.gate {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 460px;
  min-height: 100%;
}
.plan {
  width: 100%;
  height: 100%;
  min-height: 0;
  color: var(--ink);
  stroke-width: 1.4;
  background:
    linear-gradient(var(--grid) 1px, transparent 1px) 0 0 / 24px 24px,
    linear-gradient(90deg, var(--grid) 1px, transparent 1px) 0 0 / 24px 24px;
}
.plan text {
  font-family: var(--font);
  font-stretch: 76%;
  font-size: 15px;
  text-anchor: middle;
  fill: var(--ink);
}
.plan .e {
  stroke: var(--ember);
  fill: var(--ember-tint);
}
.plan .q {
  stroke: var(--quench);
  fill: var(--quench-tint);
}
.plan .b {
  stroke: var(--belt);
  stroke-width: 10;
}
.door {
  padding: 48px 44px;
  background: var(--sheet);
  border-left: 1px solid var(--hair);
  gap: 26px;
  align-content: center;
}
h1 {
  font-size: 44px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--hair);
}
.person {
  width: 100%;
  display: grid;
  grid-template-columns: 92px 86px 1fr;
  align-items: baseline;
  gap: 8px;
  text-align: left;
  background: none;
  border: 0;
  border-bottom: 1px solid var(--hair);
  padding: 13px 4px;
  cursor: pointer;
  min-height: 48px;
}
.person:hover {
  background: var(--paper);
}
.person b {
  font-size: 18px;
  font-stretch: 78%;
}
label {
  display: grid;
  gap: 4px;
  font-size: 13.5px;
  font-weight: 560;
}
summary {
  cursor: pointer;
  padding: 10px 0;
}
.wrong {
  color: var(--ember);
  font-weight: 560;
  font-size: 13.5px;
}
@media (max-width: 860px) {
  .gate {
    grid-template-columns: minmax(0, 1fr);
  }
  .plan {
    display: none;
  }
  .door {
    padding: 28px 20px;
    border: 0;
    align-content: start;
  }
  .person {
    grid-template-columns: 80px 80px 1fr;
  }
}
</style>
