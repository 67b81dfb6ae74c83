<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'

import { api, unwrap } from '../api/client'
import { useMayWrite } from '../api/queries'
import { useWrite } from '../api/useWrite'
import { say } from '../settings'
import type { Job, JobStep } from './useJobs'

/** Every step of a job, to look ahead and back; and a step of one's own for this machine. */
const { job, here } = defineProps<{ job: Job; here: string }>()
const emit = defineEmits<{ show: [key: string]; back: [step: JobStep]; added: [] }>()
const mayWrite = useMayWrite()
const adding = ref(false)
const what = ref('')
const why = ref('')
const open = computed(() => job.standing === 'waiting' || job.standing === 'under way')
const after = computed(() => job.steps.find((s) => s.key === here) ?? job.steps.at(-1))
const { write, busy, problem } = useWrite(
  `job-own-${job.id}`,
  (body: { after: string; do: string; why: string; own_version: number }, key) =>
    unwrap(
      api.POST('/api/jobs/{job_id}/own-steps', {
        params: { path: { job_id: job.id }, header: { 'Idempotency-Key': key } },
        body,
      }),
    ),
)
async function add(): Promise<void> {
  if (!(await write({ after: after.value?.key ?? '', do: what.value, why: why.value, own_version: job.own_version })))
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
const MARKS = { done: '✓', passed: '–', '': '' }
</script>

<template>
  <nav ref="list" class="steps" aria-label="Steps">
    <ol>
      <li v-for="s in job.steps" :key="s.key">
        <button
          type="button"
          :class="[s.standing, { here: s.key === here }]"
          :aria-current="s.key === here ? 'step' : undefined"
          @click="emit('show', s.key)"
        >
          <span class="mark">{{ MARKS[s.standing] }}</span>
          <span>{{ say(s.do) }}<span v-if="s.own" class="soft"> (this machine’s own)</span></span>
        </button>
      </li>
    </ol>
    <form v-if="adding" class="stack" @submit.prevent="add">
      <p class="small soft">
        Behind “{{ after ? say(after.do) : '' }}”, in every such job of this machine from now on.
      </p>
      <label>What to do<el-input v-model="what" maxlength="200" /></label>
      <label>Why<el-input v-model="why" maxlength="200" /></label>
      <p v-if="problem" class="ember small" role="alert">{{ problem.errors?.[0]?.detail ?? problem.detail }}</p>
      <p>
        <el-button type="primary" native-type="submit" :loading="busy">Add it</el-button>
        <el-button @click="adding = false">Leave it</el-button>
      </p>
    </form>
    <button v-else-if="open && mayWrite" type="button" class="bare add no-print" @click="adding = true">
      <u>Add a step for this machine</u>
    </button>
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
.add {
  min-height: 44px;
}
.stack {
  display: grid;
  gap: 8px;
  padding: 8px;
}
</style>
