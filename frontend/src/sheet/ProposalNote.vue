<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ElMessageBox } from 'element-plus'
import { computed, inject } from 'vue'

import { api, type DriveOut, unwrap } from '../api/client'
import { useMayWrite } from '../api/queries'
import { useWrite } from '../api/useWrite'
import { doneKey } from '../open/useOpen'
import { completedSurvey, type Survey, trimmed } from './form'
import { sheetKey } from './useSheet'

/** A proposal that is not fitted yet: into the survey, or, of another kind of drive, fitted as a whole. */
const { drive } = defineProps<{ drive: DriveOut }>()
const state = inject(sheetKey)!
const client = useQueryClient()
const mayWrite = useMayWrite()
const fittedNow = inject(doneKey)!
const proposed = computed(() => drive.proposed)
const same = computed(() => proposed.value?.family === drive.family)
function take(): void {
  if (proposed.value) state.form.value.survey = completedSurvey(drive.family, proposed.value.survey)
}
const { write, busy, problem } = useWrite(
  `fit-${drive.id}`,
  (body: { row_version: number; survey: Survey; reason: string }, key, id) =>
    unwrap(
      api.POST('/api/drives/{drive_id}/surveys', {
        params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
        body: { ...body, id, standing: 'as left' },
      }),
    ),
)
async function fitted(): Promise<void> {
  const now = proposed.value
  if (!now) return
  const sure = await ElMessageBox.confirm(
    `The drive counts as ${now.family} from now on, as proposed; what stood before stays in the log.`,
    'Is it fitted?',
    { confirmButtonText: 'It is fitted', cancelButtonText: 'Not yet' },
  ).catch(() => null)
  if (!sure) return
  const survey = trimmed(completedSurvey(now.family, now.survey))
  const done = await write({ row_version: state.base.value, survey, reason: now.reason })
  if (!done) return
  state.base.value = done.row_version
  await client.invalidateQueries({ queryKey: ['drive', drive.id] })
  void client.invalidateQueries({ queryKey: ['log', drive.id] })
  void client.invalidateQueries({ queryKey: ['floor'] })
  fittedNow('new set')
}
</script>

<template>
  <p v-if="proposed" class="proposal">
    <b>Proposed, not fitted:</b> {{ proposed.reason }}.
    <template v-if="mayWrite">
      <button v-if="same" type="button" class="bare" @click="take"><u>Write it into the survey</u></button>
      <el-button v-else :loading="busy" @click="fitted">It is fitted now</el-button>
    </template>
    <span v-if="problem" class="ember small" role="alert">Not kept: {{ problem.detail }}</span>
  </p>
</template>

<style scoped>
.proposal {
  border-left: 3px solid var(--ember);
  padding: 4px 0 4px 12px;
}
</style>
