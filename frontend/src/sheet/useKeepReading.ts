import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'

import { api, type DriveOut, unwrap } from '../api/client'
import type { components } from '../api/schema'
import { useWrite } from '../api/useWrite'
import { trimmed } from './form'
import type { SheetState } from './useSheet'

type Kind = 'belt tension' | 'shaft speed'
type Body = Omit<components['schemas']['KeepReading'], 'id'>

/** Keep a reading: against the survey on the record, so a changed survey is kept first. */
export function useKeepReading(kind: Kind, drive: () => DriveOut, state: SheetState) {
  const client = useQueryClient()
  const kept = ref('')
  const hourMeter = ref('')
  const note = ref('')
  /** The tension was set: this is how it was left. */
  const wasSet = ref(false)
  type Settles = NonNullable<components['schemas']['KeptReadingOut']['settles']>
  const settles = ref<Settles>([])
  const strand = ref<Body['strand']>('upper')
  const { write, ...rest } = useWrite(`${kind}-${drive().id}`, (body: Body, key, id) =>
    unwrap(
      api.POST('/api/drives/{drive_id}/readings', {
        params: { path: { drive_id: drive().id }, header: { 'Idempotency-Key': key } },
        body: { ...body, id },
      }),
    ),
  )

  async function keep(): Promise<boolean> {
    const tension = kind === 'belt tension'
    const answer = await write(
      trimmed({
        kind,
        machine_state: tension ? ('isolated' as const) : ('running, guard on' as const),
        ...(tension ? { gauge: state.form.value.gauge } : { tachometer: state.form.value.tachometer }),
        strand: strand.value,
        hour_meter: hourMeter.value,
        note: note.value,
        was_set: wasSet.value,
      }),
    )
    if (!answer) return false
    state.clearReadings()
    hourMeter.value = note.value = ''
    wasSet.value = false
    settles.value = answer.settles ?? []
    const done = answer.done?.length ? ` Done with it: ${answer.done.join('; ')}.` : ''
    const beyond = answer.beyond ? ` ${answer.beyond}` : ''
    kept.value = `Kept. ${answer.headline}${answer.headline ? '.' : ''} It stands in the log.${done}${beyond}`
    void client.invalidateQueries({ queryKey: ['log', drive().id] })
    void client.invalidateQueries({ queryKey: ['drive', drive().id] })
    void client.invalidateQueries({ queryKey: ['floor'] })
    return true
  }
  return { keep, kept, hourMeter, note, strand, wasSet, settles, ...rest }
}
