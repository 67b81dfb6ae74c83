<script setup lang="ts">
import { useWakeLock } from '@vueuse/core'
import { computed, nextTick, onMounted, onUnmounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'

import { useMayWrite } from '../api/queries'
import LookPicture from '../looks/LookPicture.vue'
import PhotoButton from '../photos/PhotoButton.vue'
import { useSendPhoto } from '../photos/usePhotos'
import { inSystem, say } from '../settings'
import { when } from '../words'
import { stateOf } from './groups'
import JobEnd from './JobEnd.vue'
import JobFooter from './JobFooter.vue'
import JobSteps from './JobSteps.vue'
import NotTaken from './NotTaken.vue'
import type { JobStep } from './useJobs'
import { useJobWork } from './useJobWork'

/** A job for gloves: one step at a time, its drawing and its number large, two buttons; the next one can be read ahead. */
const route = useRoute()
const id = String(route.params.id)
const work = useJobWork(id)
const { job, error, held, waiting, unsent } = work
const mayWrite = useMayWrite()
const { isSupported, request, release } = useWakeLock()
onMounted(() => isSupported.value && void request('screen').catch(() => undefined))
onUnmounted(() => void release().catch(() => undefined))

const chosen = ref('')
const listing = ref(false)
const noting = ref(false)
const note = ref('')
const open = computed(() => job.value?.standing === 'waiting' || job.value?.standing === 'under way')
const step = computed(() => {
  const steps = job.value?.steps ?? []
  return steps.find((s) => s.key === (chosen.value || job.value?.next)) ?? null
})
const place = computed(() => job.value?.steps.findIndex((s) => s.key === step.value?.key) ?? -1)
const ahead = computed(() => job.value?.steps.slice(place.value + 1).find((s) => !s.standing) ?? null)
const settled = computed(() => job.value?.steps.filter((s) => s.standing).length ?? 0)
const title = ref<HTMLElement>()
/** The step asks for a reading that nobody has taken yet: taking it comes first, at the foot. */
const readNow = computed(() => Boolean(step.value?.not_measured && !step.value.standing))
const later = computed(() => job.value?.steps.slice(place.value + 1).filter((s) => s.standing).length ?? 0)
watch(
  () => step.value?.key,
  () => {
    noting.value = false
    note.value = ''
    window.scrollTo({ top: 0 })
  },
)
function show(key: string): void {
  chosen.value = key === job.value?.next ? '' : key
  listing.value = false
}
function done(s: JobStep): void {
  work.say(s, 'done', note.value.trim())
  chosen.value = ''
  void nextTick(() => title.value?.focus())
}
function skip(s: JobStep, why: string): void {
  work.say(s, 'passed', why)
  chosen.value = ''
}
const { send, busy } = useSendPhoto(() => job.value?.drive_id ?? '', `job-${id}`)
const photographed = ref('')
async function photo(file: File, s: JobStep): Promise<void> {
  if (await send(file, '', { job_id: id, step: s.key })) photographed.value = s.key
}
</script>

<template>
  <div class="job" :class="step?.state">
    <header class="no-print">
      <router-link v-if="job" :to="`/drives/${job.drive_id}/jobs`" class="back" aria-label="Back to the drive’s jobs">
        ‹
      </router-link>
      <div v-if="job" class="of">
        <b>{{ job.title }}</b>
        <span class="soft small">{{ job.machine }} · {{ job.place }}</span>
      </div>
      <button v-if="job" type="button" class="count" :aria-expanded="listing" @click="listing = !listing">
        <template v-if="step && open">
          Step <b>{{ place + 1 }}</b> of {{ job.steps.length }}
        </template>
        <template v-else
          ><b>{{ settled }}</b> of {{ job.steps.length }} done</template
        >
        <span class="sr"> steps, show all</span>
      </button>
    </header>
    <div v-if="job" class="bar" aria-hidden="true">
      <i v-for="s in job.steps" :key="s.key" :class="[s.standing, { here: s.key === step?.key }]" />
    </div>
    <p v-if="waiting && held" class="waits ember" role="status">
      {{ waiting === 1 ? 'One step waits' : `${waiting} steps wait` }} on this device: {{ held }}
    </p>
    <p v-else-if="waiting" class="waits" role="status">
      No connection: {{ waiting === 1 ? 'one step is' : `${waiting} steps are` }} kept on this device and sent once it
      is back.
    </p>
    <NotTaken :work="work" />
    <p v-if="!job" class="waits">{{ error ? error.message : 'Reading the job…' }}</p>

    <div v-if="job" class="two">
      <main>
        <section v-if="step && open" class="step" aria-live="polite">
          <div class="look"><LookPicture :look="step.look || 'mark'" /></div>
          <div class="say">
            <p class="soft small">
              {{ stateOf(step) }}
            </p>
            <h1 ref="title" tabindex="-1">{{ say(step.do) }}</h1>
            <p v-if="step.number" class="number">
              <span class="soft small">{{ step.number.label }}</span>
              <b>{{ inSystem(step.number) }}</b>
              <span v-if="step.number.detail" class="small">{{ say(step.number.detail) }}</span>
            </p>
            <p v-else-if="step.lacks" class="small soft">{{ step.lacks }}</p>
            <p class="why">{{ say(step.why) }}</p>
            <p v-for="c in step.cautions" :key="c.id" class="caution">
              <svg viewBox="0 0 20 18" aria-hidden="true"><path d="M10 1.5 19 17H1z M10 7v5 M10 14.4v.2" /></svg>
              {{ say(c.text) }}
            </p>
            <p v-if="step.was_read" class="small">
              Read since the job began: <b>{{ say(step.was_read) }}</b>
              <template v-if="step.not_measured && !step.standing">
                (before the drive was changed: read it again)</template
              >
            </p>
            <p v-if="step.standing" class="small">
              {{ step.standing === 'done' ? (step.not_measured ? 'Not measured' : 'Done') : 'Skipped'
              }}<template v-if="step.at">, {{ when(step.at) }}</template
              ><template v-if="step.who"> by {{ step.who }}</template
              ><template v-if="step.words">: {{ step.words }}</template>
            </p>
            <p class="tools no-print">
              <router-link v-if="step.read && !readNow" class="go" :to="`/drives/${job.drive_id}/${step.read}`">
                Take the reading at {{ step.read.split('/')[0] }} ›
              </router-link>
              <PhotoButton
                v-if="mayWrite"
                :busy="busy"
                :label="photographed === step.key ? 'Photo kept: one more' : 'Photo'"
                @taken="(f: File) => photo(f, step!)"
              />
              <button v-if="mayWrite && !step.standing" type="button" class="note" @click="noting = !noting">
                Note
              </button>
              <span class="soft small source">{{ step.source }}</span>
            </p>
            <label v-if="noting" class="small">
              What to keep with this step
              <el-input v-model="note" maxlength="400" type="textarea" autosize />
            </label>
          </div>
        </section>
        <JobEnd v-else :job="job" :unsent="unsent" @ended="work.fresh()" />
        <section v-if="step && open && place === 0 && job.earlier.length" class="earlier">
          <h2>Noted last time</h2>
          <p v-for="(n, i) in job.earlier" :key="i" class="small">
            {{ n.words }} <span class="soft">{{ n.do ? `at “${say(n.do)}”, ` : '' }}{{ n.who }}, {{ when(n.at) }}</span>
          </p>
        </section>
        <p v-if="step && open && ahead && ahead.key !== step.key" class="ahead">
          <span class="soft small">Then</span> {{ say(ahead.do) }}
        </p>
        <p v-if="step && open" class="small soft">{{ job.deference }}</p>
      </main>
      <JobSteps
        class="all"
        :class="{ listing }"
        :job="job"
        :here="step?.key ?? ''"
        @show="show"
        @added="work.fresh()"
      />
    </div>

    <JobFooter
      v-if="job && step && open && mayWrite"
      :key="step.key"
      :step="step"
      :drive-id="job.drive_id"
      :later="later"
      @done="done(step)"
      @skip="(why: string) => skip(step!, why)"
      @back="work.say(step, '', '', later > 0)"
      @on="chosen = ''"
    />
  </div>
</template>

<style src="./jobPlace.css" scoped></style>
