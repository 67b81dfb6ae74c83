<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'

import { api, unwrap } from '../api/client'
import { useMayWrite } from '../api/queries'
import { useWrite } from '../api/useWrite'
import { say } from '../settings'
import { groupOf } from './groups'
import type { Job } from './useJobs'

/** Every step of a job, to look ahead and back; and a step of one's own for this machine. */
const { job, here } = defineProps<{ job: Job; here: string }>()
const emit = defineEmits<{ show: [key: string]; added: [] }>()
const mayWrite = useMayWrite()
const adding = ref(false)
const what = ref('')
const why = ref('')
const state = ref<'isolated' | 'running' | 'any'>('isolated')
const STATES = { isolated: 'Machine isolated', running: 'Machine running, guard on', any: 'Either' }
const open = computed(() => job.standing === 'waiting' || job.standing === 'under way')
const after = computed(() => job.steps.find((s) => s.key === here) ?? job.steps.at(-1))
const { write, busy, problem } = useWrite(
  `job-own-${job.id}`,
  (
    body: { after: string; do: string; why: string; take_out: string; state: typeof state.value; own_version: number },
    key,
  ) =>
    unwrap(
      api.POST('/api/jobs/{job_id}/own-steps', {
        params: { path: { job_id: job.id }, header: { 'Idempotency-Key': key } },
        body,
      }),
    ),
)
async function add(): Promise<void> {
  if (
    !(await write({
      after: after.value?.key ?? '',
      do: what.value,
      why: why.value,
      take_out: '',
      state: state.value,
      own_version: job.own_version,
    }))
  )
    return
  adding.value = false
  what.value = why.value = ''
  emit('added')
}
/** The step in hand stays in sight. */
const list = ref<HTMLElement>()
const follow = () => void nextTick(() => list.value?.querySelector('.here')?.scrollIntoView?.({ block: 'nearest' }))
onMounted(follow)
watch(() => here, follow)
async function takeOut(key: string): Promise<void> {
  const gone = await write({
    after: '',
    do: '',
    why: '',
    take_out: key,
    state: 'isolated',
    own_version: job.own_version,
  })
  if (gone) emit('added')
}
const dropping = ref(false)
const whyDropped = ref('')
const {
  write: drop,
  busy: dropBusy,
  problem: dropProblem,
} = useWrite(`job-drop-${job.id}`, (body: { row_version: number; why: string }, key) =>
  unwrap(
    api.POST('/api/jobs/{job_id}/drop', {
      params: { path: { job_id: job.id }, header: { 'Idempotency-Key': key } },
      body,
    }),
  ),
)
async function dropIt(): Promise<void> {
  if (await drop({ row_version: job.row_version, why: whyDropped.value })) emit('added')
}
function openForm(): void {
  adding.value = true
  void nextTick(() => list.value?.querySelector('form')?.scrollIntoView?.({ block: 'end' }))
}
const MARKS = { done: '✓', passed: '–', '': '' }
</script>

<template>
  <nav ref="list" class="steps" aria-label="Steps">
    <ol>
      <li v-for="(s, i) in job.steps" :key="s.key">
        <span v-if="i === 0 || groupOf(s) !== groupOf(job.steps[i - 1]!)" class="group">{{ groupOf(s) }}</span>
        <button
          type="button"
          :class="[s.standing, { here: s.key === here }]"
          :aria-current="s.key === here ? 'step' : undefined"
          @click="emit('show', s.key)"
        >
          <span class="mark">{{ MARKS[s.standing] }}</span>
          <span>{{ say(s.do) }}<span v-if="s.own" class="soft"> (this machine’s own)</span></span>
        </button>
        <button
          v-if="s.own && open && mayWrite && !s.standing"
          type="button"
          class="bare out no-print"
          @click="takeOut(s.key)"
        >
          <u class="small">Take it out of this machine’s jobs</u>
        </button>
      </li>
    </ol>
    <form v-if="adding" class="stack" @submit.prevent="add">
      <p class="small soft">
        Behind “{{ after ? say(after.do) : '' }}”, in every such job of this machine from now on.
      </p>
      <label>What to do<el-input v-model="what" maxlength="200" /></label>
      <label>Why<el-input v-model="why" maxlength="200" /></label>
      <fieldset>
        <legend>How is the machine for it?</legend>
        <label v-for="(words, key) in STATES" :key="key" class="pick">
          <input v-model="state" type="radio" name="own-state" :value="key" /> {{ words }}
        </label>
      </fieldset>
      <p v-if="problem" class="ember small" role="alert">{{ problem.errors?.[0]?.detail ?? problem.detail }}</p>
      <p>
        <el-button type="primary" native-type="submit" :loading="busy">Save</el-button>
        <el-button @click="adding = false">Cancel</el-button>
      </p>
    </form>
    <form v-else-if="dropping" class="stack" @submit.prevent="dropIt">
      <label>Why is it dropped?<el-input v-model="whyDropped" maxlength="400" /></label>
      <p v-if="dropProblem" class="ember small" role="alert">{{ dropProblem.detail }}</p>
      <p>
        <el-button type="primary" native-type="submit" :loading="dropBusy" :disabled="!whyDropped.trim()">
          Drop the job
        </el-button>
        <el-button @click="dropping = false">Cancel</el-button>
      </p>
    </form>
    <p v-else class="more no-print">
      <template v-if="open && mayWrite">
        <button type="button" class="bare" @click="openForm"><u>Add a step for this machine</u></button>
        <button type="button" class="bare" @click="dropping = true"><u>Drop this job…</u></button>
      </template>
      <a :href="`/api/jobs/${job.id}/sheet.pdf`" target="_blank">On paper</a>
    </p>
    <p v-if="problem && !adding" class="ember small" role="alert">
      {{ problem.errors?.[0]?.detail ?? problem.detail }}
    </p>
  </nav>
</template>

<style scoped>
.steps {
  overflow-y: auto;
  padding: 14px 12px;
  background: var(--sheet);
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li button {
  display: flex;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: 44px;
  padding: 6px 8px;
  border: 0;
  border-left: 4px solid transparent;
  background: none;
  text-align: left;
  font-size: 14px;
  line-height: 1.25;
  cursor: pointer;
}
.group {
  display: block;
  padding: 12px 8px 2px;
  font-size: 12.5px;
  font-weight: 640;
  color: var(--ink-2);
  border-bottom: 1px solid var(--hair);
}
.mark {
  flex: 0 0 16px;
  font-weight: 700;
}
.done,
.passed {
  color: var(--ink-2);
}
.here {
  border-left-color: var(--ember);
  font-weight: 620;
  color: var(--ink);
}
.more {
  display: grid;
  justify-items: start;
  padding: 8px;
}
.more > * {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
.out {
  min-height: 32px;
  padding-left: 36px;
}
fieldset {
  border: 1px solid var(--hair);
  border-radius: 3px;
  margin: 0;
}
.pick {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 40px;
}
.stack {
  display: grid;
  gap: 8px;
  padding: 8px;
}
</style>
