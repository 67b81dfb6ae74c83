<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useFloor, useMayWrite, useSite } from '../api/queries'
import type { FloorDrive } from '../api/client'
import { say } from '../settings'
import { useKeys } from '../useKeys'
import { useSiteJobs, useStartJob } from '../jobs/useJobs'
import SawSlip from '../open/SawSlip.vue'
import { ago, dueText } from '../words'
import DriveSketch from './DriveSketch.vue'
import NewDrive from './NewDrive.vue'

const router = useRouter()
const route = useRoute()
onMounted(() => 'find' in route.query && box.value?.focus())
const site = useSite()
const mayWrite = useMayWrite()
const { data, error, refetch, isPending } = useFloor()
const { data: jobs } = useSiteJobs()
const { start, busy: starting } = useStartJob('floor')
const search = ref('')
const box = ref<HTMLInputElement>()
const adding = ref(false)
const list = ref<HTMLElement>()

const all = computed(() => data.value?.drives ?? [])
const away = ref(false)
const drives = computed(() => all.value.filter((d) => d.retired === away.value))
const putAway = computed(() => all.value.filter((d) => d.retired).length)
const found = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  return drives.value.filter((d) => {
    const text = [
      d.machine,
      d.name,
      d.place,
      d.machine_kind,
      d.belts,
      d.family,
      ...d.findings.map((f) => f.what),
      ...d.dues.map((x) => x.what),
    ]
      .join(' ')
      .toLowerCase()
    return words.every((w) => text.includes(w))
  })
})
/** How far ahead dues are listed; what falls later stands on its drive. */
const AHEAD = 30
const seeing = ref<FloorDrive | null>(null)
const LEVELS = ['stop', 'overdue', 'watch', 'soon', 'remark', 'quiet']
const weight = (d: FloorDrive) => LEVELS.indexOf(d.level)
/** The reason, unless it is one of the findings that are listed anyway. */
const why = (d: FloorDrive) => (d.findings.some((f) => f.what === d.why) ? '' : d.why)
const ordered = computed(() =>
  [...found.value].sort((a, b) => weight(a) - weight(b) || a.machine.localeCompare(b.machine)),
)
/** What a hand mends first, what falls due this week, how a drive is built, and what is quiet. */
const of = (levels: string[]) => ordered.value.filter((d) => levels.includes(d.level))
const groups = computed(() => [
  { title: 'Needs attention', drives: of(['stop', 'overdue', 'watch']) },
  { title: 'Due this week', drives: of(['soon']) },
  { title: 'Remarks on how they are built', drives: of(['remark']) },
  { title: 'No open items', drives: of(['quiet']) },
])
const promises = computed(() =>
  found.value
    .flatMap((d) =>
      d.dues.filter((due) => !due.resting && due.days !== null).map((due) => ({ d, due, days: due.days! })),
    )
    .filter((p) => p.days <= AHEAD)
    .sort((a, b) => a.days - b.days),
)

useKeys({ '/': () => box.value?.focus(), n: () => mayWrite.value && (adding.value = true) })
watch(search, () => list.value?.scrollTo?.({ top: 0 }))
function openFirst(): void {
  const first = ordered.value[0]
  if (first) void router.push(`/drives/${first.id}`)
}
function walk(event: KeyboardEvent, step: number): void {
  const all = [...(list.value?.querySelectorAll<HTMLElement>('a.drive') ?? [])]
  const next = all[all.indexOf(event.target as HTMLElement) + step]
  if (next) next.focus()
  else if (step < 0) box.value?.focus()
}
</script>

<template>
  <div class="floor">
    <header>
      <div>
        <h1>{{ site?.name ?? 'Floor' }}</h1>
        <p v-if="data" class="soft">{{ drives.length }} drives, {{ groups[0]!.drives.length }} need attention</p>
      </div>
      <label class="search no-print">
        <span class="sr">Search machines and drives</span>
        <svg viewBox="0 0 20 20" aria-hidden="true">
          <circle cx="8" cy="8" r="5.5" />
          <path d="M12.5 12.5 18 18" />
        </svg>
        <input
          ref="box"
          v-model="search"
          type="search"
          placeholder="Machine, place, belt, finding…"
          @keydown.enter="openFirst"
          @keydown.down.prevent="list?.querySelector<HTMLElement>('a.drive')?.focus()"
          @keydown.esc="search = ''"
        />
        <kbd>/</kbd>
      </label>
      <el-button v-if="mayWrite" type="primary" class="no-print" @click="adding = true">New drive</el-button>
    </header>

    <p v-if="error" class="gap" role="alert">
      The floor could not be read: {{ error.message }}
      <button type="button" class="bare" @click="refetch()"><u>Try again</u></button>
    </p>
    <p v-else-if="isPending" class="gap soft">Reading the floor…</p>
    <div v-else-if="!all.length" class="gap stack none">
      <h2>No machine is on the record yet</h2>
      <p>
        Walk to the nearest belt drive with a tape, lock it out, and press New drive: motor plate, both
        {{ say('sheaves') }}, centre distance, and what is printed on the belt.
      </p>
    </div>
    <p v-else-if="!found.length" class="gap">
      Nothing here matches “{{ search }}”.
      <button type="button" class="bare" @click="search = ''"><u>Show all</u></button>
    </p>

    <div
      v-else
      ref="list"
      class="columns"
      @keydown.down.prevent="walk($event, 1)"
      @keydown.up.prevent="walk($event, -1)"
    >
      <section v-for="group in groups" v-show="group.drives.length" :key="group.title">
        <h2>{{ group.title }}</h2>
        <ul>
          <li v-for="d in group.drives" :key="d.id" class="line">
            <router-link :to="`/drives/${d.id}`" class="drive" :class="`w${weight(d)}`">
              <DriveSketch :drive="d" />
              <span class="who">
                <b>{{ d.machine }}</b>
                <span class="soft small">{{ d.name }} · {{ d.place }}</span>
              </span>
              <span class="belts">
                <b v-if="d.belts">{{ d.belts }}</b>
                <span v-else class="soft">{{ d.sketch ? d.family : 'not surveyed' }}</span>
              </span>
              <span class="state">
                <span v-for="f in d.findings" :key="f.id" class="finding">
                  <i aria-hidden="true">{{ f.weight === 'stop' ? '■' : '▲' }}</i>
                  {{ say(f.what) }}
                </span>
                <span v-if="why(d)" :class="d.level === 'quiet' ? 'soft' : 'finding'">
                  <i v-if="weight(d) < 5" aria-hidden="true">{{ d.level === 'stop' ? '■' : '▲' }}</i>
                  {{ say(why(d)) }}
                </span>
                <span v-if="d.last_reading_at" class="soft small">gauged {{ ago(d.last_reading_at) }}</span>
              </span>
            </router-link>
            <router-link v-if="d.page && weight(d) < 5" class="go" :to="`/drives/${d.id}/${d.page}`">
              {{ d.page.split(/[/?]/)[0] }} ›<span class="sr">: answers why {{ d.machine }} wants attention</span>
            </router-link>
            <button v-if="mayWrite" type="button" class="bare saw no-print" @click="seeing = d">
              Saw <br />something<span class="sr"> at {{ d.machine }}</span>
            </button>
          </li>
        </ul>
      </section>
      <aside v-if="promises.length || jobs?.length">
        <template v-if="jobs?.length">
          <h2>Jobs</h2>
          <ol class="at">
            <li v-for="j in jobs" :key="j.id">
              <router-link :to="`/jobs/${j.id}`">
                <b>{{ j.standing === 'waiting' ? 'waiting' : `${j.done} of ${j.of}` }}</b>
                <span>{{ say(j.title) }}</span>
                <span class="soft small">{{ j.machine }} · {{ j.who }}</span>
              </router-link>
            </li>
          </ol>
        </template>
        <h2 v-if="promises.length">Due</h2>
        <ol>
          <li v-for="{ d, due, days } in promises" :key="`${d.id} ${due.key}`">
            <router-link :to="`/drives/${d.id}/${due.page}`" :title="due.because">
              <b :class="{ ember: days <= 0 }">{{ dueText(days) }}</b>
              <span>{{ due.what }}</span>
              <span class="soft small">{{ d.machine }}</span>
            </router-link>
            <button
              v-if="mayWrite"
              type="button"
              class="bare start no-print"
              :disabled="starting"
              @click="start(d.id, '', {}, due.key)"
            >
              Job ›<span class="sr">: start it for {{ due.what }}, {{ d.machine }}</span>
            </button>
          </li>
        </ol>
      </aside>
    </div>
    <p v-if="putAway || away" class="gap no-print">
      <button type="button" class="bare" @click="away = !away">
        <u>{{ away ? 'Back to the floor' : `Archived: ${putAway}` }}</u>
      </button>
    </p>
    <SawSlip v-if="seeing" :model-value="true" :drive="seeing" @update:model-value="seeing = null" />
    <NewDrive v-if="adding && site" v-model="adding" :site-id="site.id" :drives="all" />
  </div>
</template>

<style src="./floorPlace.css" scoped></style>
