<script setup lang="ts">
import { computed, reactive, ref } from 'vue'

import { api, type DriveOut, unwrap } from '../api/client'
import { useWrite } from '../api/useWrite'
import { say } from '../settings'
import MeterDoubt from '../sheet/MeterDoubt.vue'
import { useRefresh } from './useOpen'

/** Something was fitted or done: what went on, what came off and why, what it puts right. New counts begin with it. */
const open = defineModel<boolean>({ required: true })
const { drive, first = '' } = defineProps<{ drive: DriveOut; first?: string }>()
const refresh = useRefresh()
const KINDS = [
  { key: 'new set', label: `New ${drive.kind.runs === 'chain' ? 'chain' : 'belts'}, the whole set`, fits: true },
  { key: 'new wheel', label: 'One wheel', fits: true },
  { key: 're-tension', label: 'Tension set', fits: false },
  { key: 'oil change', label: 'Oil changed', fits: false },
  { key: 'first start', label: 'First start', fits: false },
] as const
type Kind = (typeof KINDS)[number]['key']
const kind = ref<Kind | ''>((first as Kind) || '')
const chosen = computed(() => KINDS.find((k) => k.key === kind.value))
const form = reactive({ what: '', came_off: '', why_off: '', hour_meter: '', life: '', interval: '', at: '' })
const closes = ref<string[]>([])
const own = computed(() => drive.findings.filter((f) => !f.by_core))
/** A new belt on a bad wheel dies as fast: what stays open under a new set is shown, and asked about. */
const under = computed(() =>
  kind.value === 'new set'
    ? drive.findings.filter((f) => f.page !== 'tension' && !closes.value.includes(f.id) && f.place !== 'belt')
    : [],
)
const knowing = ref(false)
const WHY = ['worn', 'broke', 'cracked', 'glazed', 'turned over', 'stretched', 'with a new sheave', 'by plan']
const number = (text: string) => {
  const cleaned = text.replaceAll(',', '').replace(/h$/, '').trim()
  return cleaned === '' ? null : Number(cleaned)
}
const bad = computed(() => [number(form.life), number(form.interval)].some((n) => n !== null && !(n > 0)))
type Body = {
  kind: Kind
  what: string
  came_off: string
  why_off: string
  hour_meter: string
  life_h: number | null
  interval_h: number | null
  at: string | null
  closes: { id: string; row_version: number }[]
}
const lasted = ref<number | null>(null)
const kept = ref(false)
const { write, busy, waiting, problem } = useWrite(`did-${drive.id}`, (body: Body, key, id) =>
  unwrap(
    api.POST('/api/drives/{drive_id}/happened', {
      params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
      body: { ...body, id },
    }),
  ),
)
async function keep(): Promise<void> {
  if (!kind.value || bad.value) return
  const done = await write({
    kind: kind.value,
    what: form.what,
    came_off: form.came_off,
    why_off: form.why_off,
    hour_meter: form.hour_meter,
    life_h: kind.value === 'new set' ? number(form.life) : null,
    interval_h: kind.value === 'oil change' ? number(form.interval) : null,
    at: form.at ? new Date(form.at).toISOString() : null,
    closes: own.value.filter((f) => closes.value.includes(f.id)).map((f) => ({ id: f.id, row_version: f.row_version })),
  })
  if (!done) return
  lasted.value = done.life_h
  kept.value = true
  await refresh(drive.id)
}
const wrong = (field: string) => problem.value?.errors?.find((e) => e.field === field)?.detail
</script>

<template>
  <el-drawer v-model="open" title="What was fitted or done?" :size="460" append-to-body>
    <div v-if="kept" class="stack" role="status">
      <p class="kept">
        <b>✓ Kept: {{ chosen?.label }}.</b> It stands in the log{{
          lasted ? `; the set before it ran ${Math.round(lasted)} h` : ''
        }}.
      </p>
      <template v-if="drive.dues.length">
        <p>What falls due now:</p>
        <ul class="dues">
          <li v-for="d in drive.dues" :key="d.key">
            <b>{{ d.said }}</b>
            {{ d.what }}
          </li>
        </ul>
      </template>
      <p class="row"><el-button type="primary" @click="open = false">That is all</el-button></p>
    </div>
    <div v-else-if="!kind" class="kinds">
      <button v-for="k in KINDS" :key="k.key" type="button" @click="kind = k.key">{{ say(k.label) }}</button>
    </div>
    <form v-else class="stack" @submit.prevent="keep">
      <p class="row">
        <b>{{ say(chosen?.label ?? '') }}</b>
        <button v-if="!first" type="button" class="bare" @click="kind = ''"><u>another</u></button>
      </p>
      <label>
        {{ chosen?.fits ? 'What went on' : 'What was done' }}
        <el-input v-model="form.what" maxlength="200" :placeholder="kind === 'new set' ? '3 × B81 from one box' : ''" />
      </label>
      <template v-if="chosen?.fits">
        <label>
          What came off
          <el-input v-model="form.came_off" maxlength="200" />
        </label>
        <label>
          Why it came off
          <el-input v-model="form.why_off" maxlength="400" />
        </label>
        <p class="why">
          <button v-for="w in WHY" :key="w" type="button" class="chip" @click="form.why_off = say(w)">
            {{ say(w) }}
          </button>
        </p>
      </template>
      <label v-if="kind === 'oil change'">
        Changed again after, running hours <span class="soft">(asked once)</span>
        <el-input v-model="form.interval" inputmode="decimal" maxlength="20" placeholder="by its manual, such as 100" />
      </label>
      <div class="two">
        <label>
          Hour meter
          <el-input v-model="form.hour_meter" inputmode="decimal" maxlength="60" placeholder="–" />
          <MeterDoubt v-model="form.hour_meter" :problem="problem" />
        </label>
        <label v-if="kind === 'new set'">
          The old set ran, hours
          <el-input v-model="form.life" inputmode="decimal" maxlength="20" placeholder="if you know" />
        </label>
        <label>
          When
          <input v-model="form.at" type="datetime-local" />
          <span class="small soft">now, if left open</span>
          <span v-if="wrong('at')" class="ember">{{ wrong('at') }}</span>
        </label>
      </div>
      <fieldset v-if="own.length">
        <legend>Does it put this right?</legend>
        <el-checkbox-group v-model="closes">
          <el-checkbox v-for="f in own" :key="f.id" :value="f.id">{{ say(f.what) }}</el-checkbox>
        </el-checkbox-group>
      </fieldset>
      <div v-if="under.length" class="under" role="group" aria-label="Still open under it">
        <b>A new {{ drive.kind.runs === 'chain' ? 'chain' : 'belt' }} on a bad drive dies as fast. Still open:</b>
        <ul class="dues">
          <li v-for="f in under" :key="f.id">{{ say(f.what) }}</li>
        </ul>
        <el-checkbox v-model="knowing">Fitted all the same: it stays open</el-checkbox>
      </div>
      <p v-if="bad" class="ember" role="alert">Write the hours as a number, such as 1200.</p>
      <p v-if="problem && !problem.errors?.length" class="ember" role="alert">{{ problem.detail }}</p>
      <p v-if="waiting" role="status">No connection. Sending again by itself; nothing is stored twice.</p>
      <p class="small soft">Guards back on before it runs. New belts are set again after their first day's running.</p>
      <p class="row">
        <el-button type="primary" native-type="submit" :loading="busy" :disabled="bad || (under.length > 0 && !knowing)"
          >Keep it</el-button
        >
        <el-button @click="open = false">Cancel</el-button>
      </p>
    </form>
  </el-drawer>
</template>

<style src="./line.css" scoped></style>
<style scoped>
.kinds {
  display: grid;
  gap: 8px;
}
.kinds button {
  min-height: 58px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  padding: 6px 14px;
  text-align: left;
  font-size: 17px;
  font-stretch: 78%;
  font-weight: 600;
  cursor: pointer;
}
.kept {
  border-left: 4px solid var(--within);
  padding-left: 12px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
.why {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.chip {
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: none;
  min-height: 36px;
  padding: 0 10px;
  cursor: pointer;
}
.under {
  border-left: 4px solid var(--ember);
  padding-left: 12px;
  display: grid;
  gap: 4px;
}
.dues {
  margin: 0;
  padding-left: 18px;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
}
legend {
  font-weight: 560;
}
.el-checkbox {
  display: flex;
  min-height: 40px;
}
</style>
