import { useLocalStorage } from '@vueuse/core'
import { computed, provide } from 'vue'

import { api, type Entry, type ToothedAsk, type ToothedDriveAsk, unwrap } from '../../api/client'
import { trimmed } from '../../sheet/form'
import { useAnswer } from '../../sheet/useAnswer'
import { answersKey } from '../../sheet/useSheet'

export type Family = ToothedAsk['family']
export const SIZES: Record<Family, string[]> = {
  synchronous: ['pitch_span', 'tooth_height', 'belt_thickness', 'belt_width'],
  'roller chain': ['pitch_span', 'roller_diameter', 'inner_width', 'plate_height', 'plate_thickness', 'pin_diameter'],
}
type Words = Required<NonNullable<ToothedAsk['words']>>
interface Draft {
  quantities: Record<string, Entry>
  words: Words
  drive: Omit<Required<ToothedDriveAsk>, 'family'>
}

function blank(family: Family): Draft {
  const entry = (): Entry => ({ text: '', unit: '', origin: null })
  return {
    quantities: Object.fromEntries(SIZES[family].map((key) => [key, entry()])),
    words: { pitch_count: '', shape: '', material: '', body: '', plates: '', label: '', tool: 'caliper' },
    drive: { name: '', teeth_1: '', teeth_2: '', count: '', centre_distance: entry() },
  }
}

/** What is typed of a toothed belt or a chain (kept on this device) and the server's answers to it. */
export function useToothed(family: Family) {
  const form = useLocalStorage<Draft>(`tuyere-toothed-${family}`, blank(family), { mergeDefaults: true })
  const found = useAnswer(
    () => [form.value.quantities, form.value.words],
    (signal) =>
      unwrap(
        api.POST('/api/calc/toothed', {
          body: trimmed({ family, quantities: form.value.quantities, words: form.value.words }),
          signal,
        }),
      ),
  )
  const drive = useAnswer(
    () => form.value.drive,
    (signal) => unwrap(api.POST('/api/calc/toothed-drive', { body: trimmed({ family, ...form.value.drive }), signal })),
  )
  const problems = computed(
    () =>
      new Map(
        [...(found.answer.value?.problems ?? []), ...(drive.answer.value?.problems ?? [])].map((p) => [p.field, p]),
      ),
  )
  provide(answersKey, {
    note: (name) => found.answer.value?.notes[name] ?? drive.answer.value?.notes[name],
    problem: (name) => problems.value.get(name),
  })
  return { form, found: found.answer, drive: drive.answer, clear: () => (form.value = blank(family)) }
}
