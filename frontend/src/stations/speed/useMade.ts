import { computed, type Ref } from 'vue'

import { api, unwrap } from '../../api/client'
import type { components } from '../../api/schema'
import { trimmed } from '../../sheet/form'
import { useAnswer } from '../../sheet/useAnswer'
import type { Made } from './useSpeedAsk'

export type MadeAnswer = components['schemas']['MadeOut']

/** The sizes and profile of a sheave to make, asked while somebody looks at it. */
export function useMade(form: Ref<Made>, here: Ref<boolean>) {
  const watched = computed(() => (here.value ? trimmed(form.value) : null))
  const { answer } = useAnswer(watched, async (signal) =>
    watched.value ? unwrap(api.POST('/api/calc/speed/wheel', { body: watched.value, signal })) : null,
  )
  return answer
}
