<script setup lang="ts">
import { refDebounced, useIntersectionObserver } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useFloor, useMayWrite, useSite, useSiteDues } from '../api/queries'
import { api, type FloorDrive, unwrap } from '../api/client'
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
const { data: jobs } = useSiteJobs()
const { start, busy: starting } = useStartJob('floor')
const search = ref('')
const box = ref<HTMLInputElement>()
const adding = ref(false)
const list = ref<HTMLElement>()

const away = ref(false)
const area = ref('')
const typed = refDebounced(search, 180)
const asked = computed(() => ({ find: typed.value.trim(), area: area.value, away: away.value }))
const { data, error, refetch, isPending, hasNextPage, fetchNextPage, isFetchingNextPage } = useFloor(asked)
const { data: due } = useSiteDues(asked)
const first = computed(() => data.value?.pages[0])
const drives = computed(() => data.value?.pages.flatMap((p) => p.drives) ?? [])
const areas = computed(() => first.value?.areas ?? [])
const here = computed(() => (away.value ? first.value?.put_away : first.value?.here) ?? 0)
/** The rest of the list comes when its end is near. */
const end = ref<HTMLElement>()
useIntersectionObserver(end, ([seen]) => {
  if (seen?.isIntersecting && hasNextPage.value && !isFetchingNextPage.value) void fetchNextPage()
})
const seeing = ref<FloorDrive | null>(null)
const LEVELS = ['stop', 'overdue', 'watch', 'soon', 'remark', 'quiet']
const weight = (d: FloorDrive) => LEVELS.indexOf(d.level)
/** The reason, unless it is one of the findings that are listed anyway. */
const why = (d: FloorDrive) => (d.findings.some((f) => f.what === d.why) ? '' : d.why)
/** What a hand mends first, what falls due this week, how a drive is built, and what is quiet: they come in this order. */
const GROUPS = [
  { title: 'Needs attention', levels: ['stop', 'overdue', 'watch'] },
  { title: 'Due this week', levels: ['soon'] },
  { title: 'Remarks on how they are built', levels: ['remark'] },
  { title: 'No open items', levels: ['quiet'] },
]
const many = (levels: string[]) => levels.reduce((sum, level) => sum + (first.value?.counts[level] ?? 0), 0)
const groups = computed(() =>
  GROUPS.map((g) => ({ ...g, many: many(g.levels), drives: drives.value.filter((d) => g.levels.includes(d.level)) })),
)
const found = computed(() => many(LEVELS))
const promises = computed(() => due.value?.dues ?? [])

useKeys({ '/': () => box.value?.focus(), n: () => mayWrite.value && (adding.value = true) })
watch(search, () => list.value?.scrollTo?.({ top: 0 }))
/** The list may be a key behind: what is typed now is asked for. */
async function openFirst(): Promise<void> {
  const query = { ...asked.value, find: search.value.trim(), limit: 1 }
  const found = await unwrap(
    api.GET('/api/sites/{site_id}/floor', { params: { path: { site_id: site.value!.id }, query } }),
  ).catch(() => null)
  if (found?.drives[0]) void router.push(`/drives/${found.drives[0].id}`)
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
        <p v-if="data" class="soft">
          {{ found === here ? here : `${found} of ${here}` }} drives, {{ groups[0]!.many }} need attention
        </p>
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
      <label v-if="areas.length > 1 || area" class="area no-print">
        <span class="sr">Area</span>
        <select v-model="area">
          <option value="">Everywhere</option>
          <option v-for="a in areas" :key="a.name" :value="a.name || '-'">
            {{ a.name || 'no place given' }}: {{ a.drives }}{{ a.attention ? `, ${a.attention} need attention` : '' }}
          </option>
        </select>
      </label>
      <el-button v-if="mayWrite" type="primary" class="no-print" @click="adding = true">New drive</el-button>
    </header>

    <p v-if="error" class="gap" role="alert">
      The floor could not be read: {{ error.message }}
      <button type="button" class="bare" @click="refetch()"><u>Try again</u></button>
    </p>
    <p v-else-if="isPending" class="gap soft">Reading the floor…</p>
    <div v-else-if="!first!.here && !first!.put_away" class="gap stack none">
      <h2>No machine is on the record yet</h2>
      <p>
        Walk to the nearest belt drive with a tape, lock it out, and press New drive: motor plate, both
        {{ say('sheaves') }}, centre distance, and what is printed on the belt.
      </p>
    </div>
    <p v-else-if="!found" class="gap">
      Nothing here matches{{ search ? ` “${search}”` : '' }}{{ area ? ` in ${area}` : '' }}.
      <button type="button" class="bare" @click="search = area = ''"><u>Show all</u></button>
    </p>

    <div
      v-else
      ref="list"
      class="columns"
      @keydown.down.prevent="walk($event, 1)"
      @keydown.up.prevent="walk($event, -1)"
    >
      <div>
        <section v-for="group in groups" v-show="group.drives.length" :key="group.title">
          <h2>
            {{ group.title }} <span class="soft">{{ group.many }}</span>
          </h2>
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
      </div>
      <aside v-if="promises.length || jobs?.jobs.length">
        <template v-if="jobs?.jobs.length">
          <h2>
            Jobs
            <span v-if="jobs.many > jobs.jobs.length" class="soft"
              >first {{ jobs.jobs.length }} of {{ jobs.many }}</span
            >
          </h2>
          <ol class="at">
            <li v-for="j in jobs.jobs" :key="j.id">
              <router-link :to="`/jobs/${j.id}`">
                <b>{{ j.standing === 'waiting' ? 'waiting' : `${j.done} of ${j.of}` }}</b>
                <span>{{ say(j.title) }}</span>
                <span class="soft small">{{ j.machine }} · {{ j.who }}</span>
              </router-link>
            </li>
          </ol>
        </template>
        <h2 v-if="promises.length">
          Due
          <span v-if="due!.many > promises.length" class="soft">first {{ promises.length }} of {{ due!.many }}</span>
        </h2>
        <ol>
          <li v-for="d in promises" :key="`${d.drive_id} ${d.due.key}`">
            <router-link :to="`/drives/${d.drive_id}/${d.due.page}`" :title="d.due.because">
              <b :class="{ ember: d.due.days! <= 0 }">{{ dueText(d.due.days!) }}</b>
              <span>{{ d.due.what }}</span>
              <span class="soft small">{{ d.machine }}</span>
            </router-link>
            <button
              v-if="mayWrite"
              type="button"
              class="bare start no-print"
              :disabled="starting"
              @click="start(d.drive_id, '', {}, d.due.key)"
            >
              Job ›<span class="sr">: start it for {{ d.due.what }}, {{ d.machine }}</span>
            </button>
          </li>
        </ol>
      </aside>
    </div>
    <p v-if="hasNextPage" ref="end" class="gap no-print">
      <button type="button" class="bare" :disabled="isFetchingNextPage" @click="fetchNextPage()">
        <u>{{ isFetchingNextPage ? 'Reading on…' : `Show more of ${found}` }}</u>
      </button>
    </p>
    <p v-if="first?.put_away || away" class="gap no-print">
      <button type="button" class="bare" @click="away = !away">
        <u>{{ away ? 'Back to the floor' : `Archived: ${first?.put_away}` }}</u>
      </button>
    </p>
    <SawSlip v-if="seeing" :model-value="true" :drive="seeing" @update:model-value="seeing = null" />
    <NewDrive v-if="adding && site" v-model="adding" :site-id="site.id" />
  </div>
</template>

<style src="./floorPlace.css" scoped></style>
