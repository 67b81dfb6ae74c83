<script setup lang="ts">
import { computed, inject, ref, watch } from 'vue'

import type { Choices, DriveOut } from '../../api/client'
import { useMayWrite } from '../../api/queries'
import LookPicture from '../../looks/LookPicture.vue'
import PhotoButton from '../../photos/PhotoButton.vue'
import PhotoStrip from '../../photos/PhotoStrip.vue'
import { useSendPhoto } from '../../photos/usePhotos'
import { say } from '../../settings'
import CautionStrip from '../../sheet/CautionStrip.vue'
import { roundKey } from './useRound'

/** One item of a round at a time: its picture, what to look for, and four large buttons. */
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const desk = inject(roundKey)!
const { item } = desk
const mayWrite = useMayWrite()
const asking = ref<'' | 'not ok' | 'cannot'>('')
const words = ref('')
watch(item, (now, before) => {
  if (now?.key === before?.key) return
  asking.value = ''
  words.value = ''
})
/** What is stopped is not shown before the machine is: one stop, one lock-out. */
const lockFirst = computed(() => item.value?.state === 'stopped' && !desk.mayStop.value)
const place = computed(() => desk.items.value.findIndex((i) => i.key === item.value?.key) + 1)
const { send, busy: sending, problem: photoProblem } = useSendPhoto(() => drive.id, `round-${drive.id}`)
async function answer(found: 'ok' | 'not ok' | 'cannot'): Promise<void> {
  const at = item.value!
  const kept = await desk.say(at, found, found === 'ok' ? '' : words.value)
  if (kept && item.value?.key === at.key) asking.value = '' // one may have gone on meanwhile
}
function ask(what: 'not ok' | 'cannot'): void {
  words.value = item.value?.words ?? ''
  asking.value = what
}
const problem = computed(() => desk.answered.problem.value)
</script>

<template>
  <div class="round" :class="item?.state">
    <section v-if="item && lockFirst" class="card" aria-label="Stop the machine">
      <div class="look"><LookPicture look="lock" /></div>
      <h3>Now stop it, lock it out, and try it</h3>
      <CautionStrip :cautions="choices.cautions.tension" state="Machine isolated." />
      <el-button type="primary" size="large" @click="desk.locked.value = desk.round.value!.id">
        Locked out and tried: go on
      </el-button>
    </section>
    <section v-else-if="item" class="card" :aria-label="item.ask">
      <p class="where">
        <b>{{ item.state === 'running' ? 'Running, guard on' : 'Stopped, locked out' }}</b>
        <span class="soft">{{ place }} of {{ desk.items.value.length }}</span>
      </p>
      <div class="look"><LookPicture :look="item.look" /></div>
      <h3>{{ say(item.ask) }}</h3>
      <p class="how">{{ say(item.how) }}</p>
      <template v-if="mayWrite && !asking">
        <div class="four">
          <el-button
            size="large"
            :class="{ on: item.found === 'ok' }"
            :loading="desk.answered.busy.value"
            @click="answer('ok')"
            >OK</el-button
          >
          <!-- prettier-ignore -->
          <el-button size="large" class="bad" :class="{ on: item.found === 'not ok' }" @click="ask('not ok')">Not OK</el-button>
          <router-link
            v-if="item.measure"
            :to="`/drives/${drive.id}/${item.measure}`"
            class="el-button el-button--large measure"
          >
            Measure
          </router-link>
          <el-button size="large" :class="{ on: item.found === 'cannot', wide: !item.measure }" @click="ask('cannot')"
            >Cannot</el-button
          >
        </div>
        <div v-if="item.found === 'not ok' && item.finding_id" class="stack">
          <p>
            <b>Not OK</b>, kept as a finding.<template v-if="item.words"> “{{ item.words }}”</template>
          </p>
          <PhotoStrip :drive="drive" :finding-id="item.finding_id" />
          <p class="row">
            <PhotoButton :busy="sending" label="Photo of it" @taken="send($event, item.finding_id)" />
            <el-button type="primary" @click="desk.gone.value = ''">Next</el-button>
          </p>
        </div>
        <p v-else-if="item.found === 'measured'" role="status"><b>Measured</b>: {{ item.words }}.</p>
        <p v-else-if="item.found" class="small soft">
          {{ item.who }}: {{ item.found }}{{ item.words ? `, “${item.words}”` : '' }}
        </p>
      </template>
      <form v-else-if="mayWrite" class="stack" @submit.prevent="answer(asking as 'cannot')">
        <label>
          {{ asking === 'cannot' ? 'Why not?' : 'What is it?' }}
          <el-input
            v-model="words"
            maxlength="400"
            autofocus
            :placeholder="asking === 'cannot' ? 'no way in without a scaffold' : 'in a few words, or leave it'"
          />
          <!-- prettier-ignore -->
        </label>
        <p class="row">
          <el-button type="primary" size="large" native-type="submit" :loading="desk.answered.busy.value">
            {{ asking === 'cannot' ? 'It cannot be looked at' : 'Not OK: keep it' }}
          </el-button>
          <el-button size="large" @click="asking = ''">Back</el-button>
        </p>
      </form>
      <p v-if="desk.answered.waiting.value" role="status">No connection. Sent again by itself.</p>
      <p v-if="problem ?? photoProblem" class="ember" role="alert">{{ (problem ?? photoProblem)!.detail }}</p>
      <p class="small soft source">{{ item.source }}</p>
    </section>
    <section v-else class="card">
      <div class="look"><LookPicture look="guard" /></div>
      <h3>{{ desk.round.value ? 'All looked at' : desk.last.value || 'No round under way' }}</h3>
      <p class="how">
        {{
          desk.round.value
            ? 'Guards back, tools counted, locks off by their owners. Then finish the round.'
            : 'Running things first, from outside the guard; then one stop, locked out, for the rest.'
        }}
      </p>
    </section>
  </div>
</template>

<style scoped>
.round {
  min-height: 0;
  overflow-y: auto;
  display: grid;
  justify-items: center;
  align-items: start;
  background: var(--paper);
  border-top: 5px solid var(--within);
}
.stopped {
  border-top-color: var(--ember);
}
.card {
  width: min(620px, 100%);
  padding: 16px 20px 20px;
  display: grid;
  gap: 12px;
}
.where {
  display: flex;
  justify-content: space-between;
}
.running .where b {
  color: var(--within);
}
.stopped .where b {
  color: var(--ember);
}
.look {
  width: min(330px, 80%);
  --line: 0.6;
  justify-self: center;
  background: var(--sheet);
  border: 1px solid var(--hair-2);
}
h3 {
  font-size: 27px;
  line-height: 1.15;
  font-stretch: 78%;
}
.how {
  font-size: 17px;
}
.four {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.four > * {
  margin: 0;
  min-height: 66px;
  font-size: 21px;
}
.wide {
  grid-column: 1 / -1;
}
.measure {
  text-decoration: none;
}
.on {
  box-shadow: inset 0 0 0 3px var(--ink);
}
.bad {
  color: var(--ember);
}
label {
  display: grid;
  gap: 4px;
  font-weight: 560;
}
.row .el-button {
  margin-left: 0;
}
@media (max-width: 760px) {
  .round {
    overflow: visible;
  }
  .look {
    width: 190px;
  }
  h3 {
    font-size: 23px;
  }
}
</style>
