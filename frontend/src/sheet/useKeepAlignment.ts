import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'

import { api, type DriveOut, unwrap } from '../api/client'
import type { components } from '../api/schema'
import { useWrite } from '../api/useWrite'
import { trimmed } from './form'
import type { SheetState } from './useSheet'

type Body = Omit<components['schemas']['KeepAlignment'], 'id' | 'machine_state'>

/** Keep an alignment, as found, between or as left: against the survey on the record, so a changed survey is kept first. */
export function useKeepAlignment(drive: () => DriveOut, state: SheetState, after: () => void) {
  const client = useQueryClient()
  const kept = ref('')
  const hourMeter = ref('')
  const note = ref('')
  const standing = ref<Body['standing']>('as found')
  const { write, ...rest } = useWrite(`alignment-${drive().id}`, (body: Body, key, id) =>
    unwrap(
      api.POST('/api/drives/{drive_id}/alignments', {
        params: { path: { drive_id: drive().id }, header: { 'Idempotency-Key': key } },
        body: { ...body, id, machine_state: 'isolated' as const },
      }),
    ),
  )

  async function keep(): Promise<boolean> {
    const answer = await write(
      trimmed({
        align: state.form.value.align,
        standing: standing.value,
        hour_meter: hourMeter.value,
        note: note.value,
      }),
    )
    if (!answer) return false
    kept.value = `Kept ${standing.value}. ${answer.headline}. It stands in the log.`
    // What comes after a kept round is the next step of it.
    standing.value = standing.value === 'as left' ? 'as found' : 'as left'
    hourMeter.value = note.value = ''
    after()
    void client.invalidateQueries({ queryKey: ['log', drive().id] })
    void client.invalidateQueries({ queryKey: ['drive', drive().id] })
    void client.invalidateQueries({ queryKey: ['floor'] })
    return true
  }
  return { keep, kept, hourMeter, note, standing, ...rest }
}
