import { computed, type Ref } from 'vue'

import { api, type Entry, unwrap } from '../../api/client'
import type { components } from '../../api/schema'
import { trimmed } from '../../sheet/form'
import { useAnswer } from '../../sheet/useAnswer'

export type UnknownAnswer = components['schemas']['UnknownOut']
export interface Train {
  quantities: Record<string, Entry>
  words: Record<string, string>
  stages: number
  teeth: boolean
}
const entry = (): Entry => ({ text: '', unit: '', origin: null })

export function blankTrain(): Train {
  const keys = ['first_speed', 'last_speed', ...[1, 2, 3, 4].flatMap((k) => [`driving_${k}`, `driven_${k}`])]
  return {
    quantities: Object.fromEntries(keys.map((key) => [key, entry()])),
    words: Object.fromEntries(
      [
        'slip',
        'marks_driving',
        'marks_driven',
        ...[1, 2, 3, 4].flatMap((k) => [`ratio_${k}`, `driving_${k}`, `driven_${k}`]),
      ].map((key) => [key, '']),
    ),
    stages: 1,
    teeth: false,
  }
}

/** The one thing left out of a train, asked while somebody looks at it. */
export function useUnknown(form: Ref<Train>, here: Ref<boolean>) {
  const watched = computed(() => (here.value ? trimmed(form.value) : null))
  const { answer } = useAnswer(watched, async (signal) =>
    watched.value ? unwrap(api.POST('/api/calc/speed/unknown', { body: watched.value, signal })) : null,
  )
  return answer
}
