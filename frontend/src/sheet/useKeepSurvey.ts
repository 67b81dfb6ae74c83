import { useQueryClient } from '@tanstack/vue-query'
import { ElMessage } from 'element-plus'
import { computed, ref } from 'vue'

import { api, type DriveOut, unwrap } from '../api/client'
import { useWrite } from '../api/useWrite'
import { completedSurvey, trimmed, type Survey } from './form'
import { type SheetState } from './useSheet'

export type Standing = 'as found' | 'as left' | 'corrected' | 'proposed'
interface Body {
  row_version: number
  standing: Standing
  reason: string
  survey: Survey
}

/** Keep the survey; the newest record then becomes the sheet's base. */
export function useKeepSurvey(drive: () => DriveOut, state: SheetState) {
  const client = useQueryClient()
  const kept = ref('')
  const before = ref<Survey | null>(null)
  const { write, ...rest } = useWrite(`survey-${drive().id}`, (body: Body, key, id) =>
    unwrap(
      api.POST('/api/drives/{drive_id}/surveys', {
        params: { path: { drive_id: drive().id }, header: { 'Idempotency-Key': key } },
        body: { ...body, id },
      }),
    ),
  )

  async function keep(standing: Standing, reason: string, version = state.base.value): Promise<boolean> {
    const was = JSON.parse(JSON.stringify(drive().survey)) as Survey
    const hadSurvey = drive().configuration_id !== null
    const answer = await write({
      row_version: version,
      standing,
      reason,
      survey: trimmed(state.form.value.survey),
    })
    if (!answer) return false
    before.value = hadSurvey ? was : null
    await refresh()
    state.standsOnRecord()
    kept.value = `Survey ${answer.sequence} kept.`
    return true
  }

  /** The record's survey as it is now. */
  const theirs = computed(() => completedSurvey(drive().family, JSON.parse(JSON.stringify(drive().survey)) as Survey))

  /** After a clash: what was chosen of both surveys, on top of the record as it is now. */
  function keepMerged(survey: Survey, standing: Standing, reason: string): Promise<boolean> {
    state.form.value.survey = survey
    return keep(standing, reason, drive().row_version)
  }

  /** Keep another survey as a proposal: what is fitted stays as it is. */
  async function propose(survey: Survey, reason: string): Promise<boolean> {
    const answer = await write({
      row_version: state.base.value,
      standing: 'proposed',
      reason,
      survey: trimmed(survey),
    })
    if (!answer) return false
    state.base.value = answer.row_version
    await refresh()
    return true
  }

  /** Undo: the survey before is kept again as a correction; nothing is overwritten. */
  async function undo(): Promise<void> {
    if (!before.value) return
    state.form.value.survey = before.value
    if (await keep('corrected', 'undo of the survey before')) {
      before.value = null
      ElMessage.success('The survey before stands again.')
    }
  }

  async function refresh(): Promise<void> {
    await client.invalidateQueries({ queryKey: ['drive', drive().id] })
    void client.invalidateQueries({ queryKey: ['log', drive().id] })
    void client.invalidateQueries({ queryKey: ['floor'] })
  }

  return { keep, theirs, keepMerged, propose, undo, kept, before, refresh, ...rest }
}
