<script setup lang="ts">
import { computed, reactive, ref } from 'vue'

import { api, unwrap } from '../api/client'
import { useMayWrite } from '../api/queries'
import { useWrite } from '../api/useWrite'
import { say } from '../settings'
import MeterDoubt from '../sheet/MeterDoubt.vue'
import { when } from '../words'
import NotMeasured from './NotMeasured.vue'
import type { Job } from './useJobs'

/** The end of a job: what is open, what it put right, a note, the sign-off; afterwards what was done. */
const { job, unsent } = defineProps<{ job: Job; unsent: boolean }>()
const emit = defineEmits<{ ended: [] }>()
const mayWrite = useMayWrite()
const form = reactive({ note: '', safety_note: '', hour_meter: '', what: '', came_off: '', why_off: '' })
const closes = ref<string[]>([...job.answers])
const open = computed(() => job.standing === 'waiting' || job.standing === 'under way')
const left = computed(() => job.steps.filter((s) => !s.standing).length)
const passed = computed(() => job.steps.filter((s) => s.standing === 'passed'))
const fits = computed(() => ['new set', 'new wheel'].includes(job.event))
const { write, busy, waiting, problem } = useWrite(`job-end-${job.id}`, (body: Body, key) =>
  unwrap(
    api.POST('/api/jobs/{job_id}/finish', {
      params: { path: { job_id: job.id }, header: { 'Idempotency-Key': key } },
      body,
    }),
  ),
)
type Body = typeof form & { row_version: number; closes: { id: string; row_version: number }[] }
async function signOff(): Promise<void> {
  const closed = job.findings.filter((f) => closes.value.includes(f.id))
  const body = {
    ...form,
    row_version: job.row_version,
    closes: closed.map((f) => ({ id: f.id, row_version: f.row_version ?? 1 })),
  }
  if (await write(body)) emit('ended')
  else if (problem.value?.status === 409) emit('ended')
}
const wrong = (field: string) => problem.value?.errors?.find((e) => e.field === field)?.detail
const tick = (id: string) =>
  (closes.value = closes.value.includes(id) ? closes.value.filter((c) => c !== id) : [...closes.value, id])
</script>

<template>
  <section class="end">
    <template v-if="open">
      <h1>{{ left ? `${left} steps are open` : 'All done: sign it off' }}</h1>
      <p v-if="passed.length" class="small">
        Skipped:
        <template v-for="(s, i) in passed" :key="s.key">{{ i ? '; ' : '' }}{{ say(s.do) }} ({{ s.words }})</template>
      </p>
      <NotMeasured :job="job" />
      <form v-if="mayWrite" class="stack" @submit.prevent="signOff">
        <label v-if="job.lacking.length" class="must">
          <b>Not done: {{ say(job.lacking.join(' ')) }}</b>
          Why is it open? Nothing is signed off without this.
          <el-input v-model="form.safety_note" maxlength="400" />
          <span v-if="wrong('safety_note')" class="ember">{{ wrong('safety_note') }}</span>
        </label>
        <fieldset v-if="job.findings.length">
          <legend>What did it put right?</legend>
          <label v-for="f in job.findings" :key="f.id" class="tick">
            <input type="checkbox" :checked="closes.includes(f.id)" @change="tick(f.id)" />
            {{ say(f.what) }}<span v-if="f.words" class="soft">: {{ f.words }}</span>
          </label>
        </fieldset>
        <div v-if="fits" class="row">
          <label>What came off<el-input v-model="form.came_off" maxlength="200" /></label>
          <label>Why it came off<el-input v-model="form.why_off" maxlength="400" /></label>
        </div>
        <div class="row">
          <label>
            Hour meter, where there is one
            <el-input v-model="form.hour_meter" maxlength="60" placeholder="h" />
            <MeterDoubt v-model="form.hour_meter" :problem="problem" />
          </label>
          <label>
            Note
            <el-input v-model="form.note" maxlength="1000" />
            <span v-if="wrong('note')" class="ember">{{ wrong('note') }}</span>
          </label>
        </div>
        <p v-if="problem && !problem.errors?.length" class="ember" role="alert">{{ problem.detail }}</p>
        <p v-if="waiting" class="small" role="status">No connection: it is sent once it is back.</p>
        <button type="submit" class="sign" :disabled="busy || unsent">
          {{ unsent ? 'Sending the last step…' : 'Sign off' }}
        </button>
        <p class="small soft">{{ job.deference }}</p>
      </form>
    </template>
    <template v-else>
      <h1>{{ job.standing === 'dropped' ? 'Dropped' : 'Signed off' }}</h1>
      <p>
        {{ job.said }}<template v-if="job.ended_by">, {{ job.ended_by }}</template
        ><template v-if="job.finished_at">, {{ when(job.finished_at) }}</template
        ><template v-if="job.minutes">, {{ job.minutes }} min</template>
      </p>
      <p v-if="job.note">{{ job.note }}</p>
      <NotMeasured :job="job" />
      <template v-if="job.raised.length">
        <h2>What falls due of it</h2>
        <ul>
          <li v-for="d in job.raised" :key="d.key">
            {{ say(d.what) }} <span class="soft">{{ d.said }}</span>
          </li>
        </ul>
      </template>
      <template v-if="job.notes.length">
        <h2>Notes</h2>
        <ul>
          <li v-for="(n, i) in job.notes" :key="i">
            {{ n.words }} <span class="small soft">{{ say(n.do) }} {{ n.passed ? 'Skipped. ' : '' }}{{ n.who }}</span>
          </li>
        </ul>
      </template>
      <p v-if="job.safety_note" class="ember">Open with a reason: {{ job.safety_note }}</p>
      <router-link :to="`/drives/${job.drive_id}/log`" class="go">To the log ›</router-link>
    </template>
  </section>
</template>

<style scoped>
.end {
  display: grid;
  gap: 14px;
  max-width: 760px;
}
h1 {
  font-size: 31px;
  font-stretch: 82%;
}
h2 {
  font-size: 17px;
}
ul {
  margin: 4px 0 0;
  padding-left: 20px;
  display: grid;
  gap: 4px;
}
.stack {
  display: grid;
  gap: 14px;
}
label {
  display: grid;
  gap: 4px;
  font-size: 14px;
  font-weight: 560;
}
.must {
  border: 1px solid var(--ember);
  border-radius: 3px;
  padding: 10px 12px;
}
fieldset {
  border: 1px solid var(--hair);
  border-radius: 3px;
  padding: 8px 12px;
}
.tick {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 40px;
  font-weight: 400;
  font-size: 15.5px;
}
.tick input {
  accent-color: var(--ink);
  width: 22px;
  height: 22px;
}
.row {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}
.sign {
  min-height: 64px;
  border: 0;
  border-radius: 3px;
  background: var(--ink);
  color: var(--paper);
  font-size: 21px;
  font-weight: 640;
  cursor: pointer;
}
@media (max-width: 760px) {
  .row {
    grid-template-columns: 1fr;
  }
}
</style>
