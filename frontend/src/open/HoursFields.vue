<script setup lang="ts">
import { ref } from 'vue'

import { api, type DriveOut, unwrap } from '../api/client'
import { useWrite } from '../api/useWrite'
import MeterDoubt from '../sheet/MeterDoubt.vue'
import { ago } from '../words'
import { useRefresh } from './useOpen'

/** How a drive's running hours are known: its meter, and its machine's rest for the season. */
const { drive, mayWrite } = defineProps<{ drive: DriveOut; mayWrite: boolean }>()
const refresh = useRefresh()
const meter = ref('')
const { write, busy, problem } = useWrite(`hours-${drive.id}`, (body: { hour_meter: string }, key, id) =>
  unwrap(
    api.POST('/api/drives/{drive_id}/hours', {
      params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
      body: { ...body, id },
    }),
  ),
)
async function keep(): Promise<void> {
  if (!(await write({ hour_meter: meter.value }))) return
  meter.value = ''
  await refresh(drive.id)
}
type Rest = { resting: boolean; lay_up_id: string | null; row_version: number }
const {
  write: writeRest,
  busy: resting,
  problem: restProblem,
} = useWrite(`rest-${drive.id}`, (body: Rest, key, id) =>
  unwrap(
    api.POST('/api/machines/{machine_id}/rest', {
      params: { path: { machine_id: drive.hours.machine_id }, header: { 'Idempotency-Key': key } },
      body: { ...body, id },
    }),
  ),
)
async function rest(): Promise<void> {
  const { laid_up_since, lay_up_id, lay_up_version } = drive.hours
  await writeRest({ resting: !laid_up_since, lay_up_id, row_version: lay_up_version })
  await refresh(drive.id)
}
</script>

<template>
  <section class="stack">
    <h3>Running hours</h3>
    <p v-if="drive.hours.per_day !== null">
      About <b>{{ drive.hours.per_day.toFixed(1).replace(/\.0$/, '') }} h a day</b>, {{ drive.hours.source }}.
      <span v-if="drive.hours.last !== null" class="soft">
        The meter stood at {{ drive.hours.last }} h {{ drive.hours.last_at ? ago(drive.hours.last_at) : '' }}.
      </span>
    </p>
    <p v-else class="soft">
      Not known yet: say at Survey how many hours a day it runs, or read its hour meter twice, days apart.
    </p>
    <p v-if="drive.hours.set_at">
      The set that is on was fitted {{ ago(drive.hours.set_at)
      }}<template v-if="drive.hours.set_hours !== null">
        and has run about <b>{{ Math.round(drive.hours.set_hours) }} h</b></template
      >.
    </p>
    <form v-if="mayWrite" class="row" @submit.prevent="keep">
      <el-input
        v-model="meter"
        class="meter"
        inputmode="decimal"
        maxlength="60"
        aria-label="Hour meter now"
        placeholder="hour meter now"
      />
      <el-button native-type="submit" :loading="busy" :disabled="!meter.trim()">Keep the hours</el-button>
    </form>
    <MeterDoubt v-model="meter" :problem="problem" />
    <p v-if="problem && !problem.errors?.length" class="ember" role="alert">{{ problem.detail }}</p>
    <p v-if="drive.hours.laid_up_since">
      Laid up since {{ ago(drive.hours.laid_up_since) }}: nothing falls due meanwhile.
    </p>
    <p v-if="mayWrite" class="row">
      <el-button :loading="resting" @click="rest">{{
        drive.hours.laid_up_since ? 'It runs again' : 'Laid up for the season'
      }}</el-button>
    </p>
    <p v-if="restProblem" class="ember" role="alert">{{ restProblem.detail }}</p>
  </section>
</template>

<style scoped>
.meter {
  width: 180px;
}
</style>
