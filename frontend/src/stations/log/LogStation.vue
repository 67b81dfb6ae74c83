<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ElMessageBox } from 'element-plus'
import { computed, nextTick, ref, shallowRef } from 'vue'

import { api, type DriveOut, type LogEntry, Refused, unwrap } from '../../api/client'
import { useLog, useMayWrite, useTrend } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import { useRefresh } from '../../open/useOpen'
import { inSystem, say } from '../../settings'
import OriginMark from '../../sheet/OriginMark.vue'
import type { Origin } from '../../api/client'
import { dueText, when } from '../../words'
import AlignLines from './AlignLines.vue'
import AlignTrend from './AlignTrend.vue'
import PhotoStrip from '../../photos/PhotoStrip.vue'
import TrendChart from './TrendChart.vue'

defineOptions({ inheritAttrs: false })
const { drive, recordOnly } = defineProps<{ drive: DriveOut; recordOnly: boolean }>()
const mayWrite = useMayWrite()
const client = useQueryClient()
const { data: drawn } = useTrend(() => drive.id)
const entries = computed(() => drawn.value?.entries ?? [])
/** One trend a stage: fittings and surveys are of the whole drive. */
const trends = computed(() => {
  const read = entries.value.filter((e) => e.kind === 'belt tension')
  const stages = [...new Set(read.map((e) => e.stage ?? 1))].sort()
  return stages.map((stage) => ({
    stage,
    entries: entries.value.filter((e) => e.kind !== 'belt tension' || (e.stage ?? 1) === stage),
    expected: (drawn.value?.expected ?? []).filter((x) => x.stage === stage),
  }))
})
/** One a pair of wheels that was aligned. */
const aligned = computed(() => {
  const read = entries.value.filter((e) => e.kind === 'alignment')
  const pairs = [...new Set(read.map((e) => `${e.stage} ${e.wheel}`))].sort()
  return pairs.map((pair) => ({ pair, entries: read.filter((e) => `${e.stage} ${e.wheel}` === pair) }))
})
const marked = ref('')
/** What the log is looked through for. */
const SHOWN: { title: string; kinds: readonly string[] }[] = [
  { title: 'All', kinds: [] },
  { title: 'Readings', kinds: ['belt tension', 'alignment', 'wear', 'shaft speed', 'trial', 'hours'] },
  { title: 'Seen', kinds: ['finding', 'round'] },
  { title: 'Done', kinds: ['done', 'set ended', 'get-home fix', 'due', 'job'] },
  { title: 'Surveys', kinds: ['survey', 'counter slip'] },
]
const shown = shallowRef(SHOWN[0]!)
const { data, error, isPending, refetch, hasNextPage, fetchNextPage, isFetchingNextPage } = useLog(
  () => drive.id,
  () => shown.value.kinds,
)
const listed = computed(() => data.value?.pages.flatMap((p) => p.entries) ?? [])
const refresh = useRefresh()
const { write: reopen, problem: reopenProblem } = useWrite(
  `reopen-${drive.id}`,
  (body: { id: string; row_version: number }, key) =>
    unwrap(
      api.POST('/api/findings/{finding_id}', {
        params: { path: { finding_id: body.id }, header: { 'Idempotency-Key': key } },
        body: { row_version: body.row_version, state: 'open', how: 'said', why: '' },
      }),
    ),
)
async function open(e: LogEntry): Promise<void> {
  await reopen({ id: e.id, row_version: e.row_version ?? 1 })
  await refresh(drive.id)
}
const { write: strikeDone, problem: strikeProblem } = useWrite(
  `strike-done-${drive.id}`,
  (body: { id: string; row_version: number; struck: boolean }, key) =>
    unwrap(
      api.POST('/api/happened/{happened_id}/strike', {
        params: { path: { happened_id: body.id }, header: { 'Idempotency-Key': key } },
        body: { row_version: body.row_version, struck: body.struck },
      }),
    ),
)
async function strikeOut(e: LogEntry): Promise<void> {
  await strikeDone({ id: e.id, row_version: e.row_version ?? 1, struck: !e.struck })
  await refresh(drive.id)
}

const { write, problem } = useWrite(
  `strike-${drive.id}`,
  (body: { reading: string; row_version: number; struck: boolean }, key) =>
    unwrap(
      api.POST('/api/readings/{reading_id}/strike', {
        params: { path: { reading_id: body.reading }, header: { 'Idempotency-Key': key } },
        body: { row_version: body.row_version, struck: body.struck },
      }),
    ),
)
async function strike(entry: LogEntry, struck: boolean): Promise<void> {
  if (struck) {
    const sure = await ElMessageBox.confirm(
      'It stays in the log, crossed through, and can be brought back.',
      'Strike this reading out?',
      { confirmButtonText: 'Strike out', cancelButtonText: 'Cancel' },
    ).catch(() => null)
    if (!sure) return
  }
  try {
    await write({ reading: entry.id, row_version: entry.row_version ?? 1, struck })
  } catch (failed) {
    if (!(failed instanceof Refused)) throw failed
  }
  await Promise.all([
    client.invalidateQueries({ queryKey: ['log', drive.id] }),
    client.invalidateQueries({ queryKey: ['drive', drive.id] }),
    client.invalidateQueries({ queryKey: ['floor'] }),
  ])
}
function how(e: LogEntry): string {
  if (e.kind === 'wear')
    return `${e.who}; machine ${e.machine_state}${e.hour_meter_h == null ? '' : `; meter ${e.hour_meter_h} h`}${e.struck ? '; struck out' : ''}`
  const parts = [
    e.method
      ? e.kind === 'alignment'
        ? `${e.who}, ${e.standing}${e.standing === 'as left' ? ' and signed' : ''}, by ${e.method}; machine ${e.machine_state}`
        : `${e.who}, by ${e.tool === 'tachometer' ? e.tool : `${e.tool}, ${e.method} of the ${e.strand} strand`}; machine ${e.machine_state}${e.state ? `, ${e.state}` : ''}`
      : e.who,
  ]
  if (e.belt_state) parts.push(`${e.belt_state} belts`)
  if (e.hour_meter_h !== null && e.hour_meter_h !== undefined) parts.push(`meter ${e.hour_meter_h} h`)
  if (e.struck) parts.push('struck out')
  return parts.join('; ')
}
/** A point of a curve may lie further back than the list has come. */
async function show(id: string): Promise<void> {
  marked.value = id
  shown.value = SHOWN[0]!
  await nextTick()
  while (!listed.value.some((e) => e.id === id) && hasNextPage.value) await fetchNextPage()
  await nextTick()
  document.getElementById(`e-${id}`)?.scrollIntoView({ block: 'center', behavior: 'smooth' })
}
/** Whole, however far it has been read. */
async function print(): Promise<void> {
  while (hasNextPage.value) await fetchNextPage()
  await nextTick()
  window.print()
}
</script>

<template>
  <div class="station">
    <template v-if="recordOnly">
      <h2>{{ drive.name }}: on the record</h2>
      <p v-if="drive.note">{{ drive.note }}</p>
      <p class="soft">
        This is a {{ drive.family }} drive. Its survey, speed and size stand at their stations; the tension of its kind
        is not worked out here.
      </p>
      <ul v-if="drive.dues.length" class="plain">
        <li v-for="d in drive.dues" :key="d.key">
          <b :class="{ ember: d.days !== null && d.days <= 0 }">{{ d.days === null ? '–' : dueText(d.days) }}</b>
          {{ d.what }}
        </li>
      </ul>
    </template>
    <p v-if="error" role="alert">
      The log could not be read: {{ error.message }}
      <button class="bare" type="button" @click="refetch()"><u>Try again</u></button>
    </p>
    <p v-else-if="isPending" class="soft">Reading the log…</p>
    <div v-else-if="!listed.length && !shown.kinds.length" class="stack">
      <h2>Nothing in the log yet</h2>
      <p v-if="!recordOnly">
        Keep the survey, then gauge the belts: each reading lands here with who, when and how, and draws the trend.
      </p>
      <p v-else>A finding or a due put on this drive will stand here.</p>
    </div>
    <template v-else>
      <TrendChart
        v-for="s in trends"
        :key="s.stage"
        :entries="s.entries"
        :expected="s.expected"
        :title="trends.length > 1 ? `Stage ${s.stage}: average strand tension` : ''"
        @show="show"
      />
      <AlignTrend
        v-for="p in aligned"
        :key="p.pair"
        :entries="p.entries"
        :title="aligned.length > 1 ? `Stage ${p.pair.split(' ')[0]}, wheel ${p.pair.split(' ')[1]}: how true` : ''"
        @show="show"
      />
      <p
        v-for="p in [problem, reopenProblem, strikeProblem].filter(Boolean)"
        :key="p!.detail"
        class="ember"
        role="alert"
      >
        {{ p!.detail }}
      </p>
      <div class="filter no-print" role="group" aria-label="Show in the log">
        <button
          v-for="s in SHOWN"
          :key="s.title"
          type="button"
          :aria-pressed="shown === s"
          :class="{ on: shown === s }"
          @click="shown = s"
        >
          {{ s.title }}
        </button>
      </div>
      <p v-if="!listed.length" class="soft">Nothing of that kind yet.</p>
      <ol class="entries">
        <li
          v-for="e in listed"
          :id="`e-${e.id}`"
          :key="e.id"
          :class="[e.kind.replace(' ', '-'), { struck: e.struck, marked: marked === e.id }]"
        >
          <div class="head">
            <b>{{ say(e.title) }}</b>
            <time :datetime="e.at">{{ when(e.at) }}</time>
          </div>
          <p class="small soft">{{ how(e) }}</p>
          <p v-if="['survey', 'finding', 'done'].includes(e.kind)" class="small">{{ e.detail }}</p>
          <AlignLines v-if="e.kind === 'alignment'" :entry="e" />
          <dl v-else-if="e.values?.length" class="values">
            <div v-for="v in e.values" :key="v.quantity + v.position">
              <dt>{{ v.quantity === 'force' ? `belt ${v.position}` : v.label.replace(' by tachometer', '') }}</dt>
              <dd :title="`typed ${v.typed}`">
                <OriginMark :origin="v.origin as Origin" />
                <span>{{ inSystem(v) }}</span>
                <span v-if="v.plus_minus_us" class="soft"
                  >± {{ inSystem({ us: v.plus_minus_us, si: v.plus_minus_si }) }}</span
                >
              </dd>
            </div>
            <div v-if="e.figures?.strand_average" class="mean">
              <dt>average a strand</dt>
              <dd>
                <OriginMark origin="computed" />
                {{ inSystem(e.figures.strand_average) }}
                <span class="soft">
                  ±
                  {{
                    inSystem({ us: e.figures.strand_average.plus_minus_us, si: e.figures.strand_average.plus_minus_si })
                  }}
                </span>
              </dd>
            </div>
            <div v-if="e.figures?.tension_aim" class="mean soft">
              <dt>aimed for</dt>
              <dd>{{ inSystem(e.figures.tension_aim) }}</dd>
            </div>
            <div v-if="e.figures?.slip" class="mean">
              <dt>slip</dt>
              <dd>
                <OriginMark origin="computed" />
                {{ inSystem(e.figures.slip) }}
                <span class="soft">
                  ± {{ inSystem({ us: e.figures.slip.plus_minus_us, si: e.figures.slip.plus_minus_si }) }}
                </span>
              </dd>
            </div>
          </dl>
          <p v-if="e.note" class="note">“{{ e.note }}”</p>
          <PhotoStrip v-if="e.kind === 'finding'" :drive="drive" :finding-id="e.id" />
          <button
            v-if="mayWrite && (e.values?.length || e.kind === 'wear')"
            type="button"
            class="bare small no-print act"
            @click="strike(e, !e.struck)"
          >
            {{ e.struck ? 'Bring back' : 'Strike out' }}
          </button>
          <button
            v-if="mayWrite && e.kind === 'finding' && !e.open"
            type="button"
            class="bare small no-print act"
            @click="open(e)"
          >
            Open it again
          </button>
          <button
            v-if="mayWrite && e.kind === 'done'"
            type="button"
            class="bare small no-print act"
            @click="strikeOut(e)"
          >
            {{ e.struck ? 'Bring back' : 'Strike out' }}
          </button>
        </li>
      </ol>
      <p v-if="hasNextPage" class="no-print">
        <button type="button" class="bare" :disabled="isFetchingNextPage" @click="fetchNextPage()">
          <u>{{ isFetchingNextPage ? 'Reading on…' : 'Show what was before' }}</u>
        </button>
      </p>
      <p class="no-print"><el-button @click="print">Print this log</el-button></p>
    </template>
  </div>
</template>

<style src="./logStation.css" scoped></style>
