import { computed, type Ref } from 'vue'

import { api, unwrap } from '../../api/client'
import type { components } from '../../api/schema'
import { trimmed } from '../../sheet/form'
import { useAnswer } from '../../sheet/useAnswer'
import type { Cones } from './useSpeedAsk'

export type ConesAnswer = components['schemas']['ConesOut']

/** The steps of a pair of cones, asked while somebody looks at them. */
export function useCones(form: Ref<Cones>, here: Ref<boolean>) {
  const watched = computed(() => (here.value ? trimmed(form.value) : null))
  const { answer } = useAnswer(watched, async (signal) =>
    watched.value ? unwrap(api.POST('/api/calc/speed/cones', { body: watched.value, signal })) : null,
  )
  return answer
}
