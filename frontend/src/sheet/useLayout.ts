import { computed, type InjectionKey, type Ref, ref, shallowRef } from 'vue'

import { api, unwrap } from '../api/client'
import { type Survey, trimmed } from './form'
import { type Held, putDown } from './layoutEdit'
import { useAnswer } from './useAnswer'
import type { SheetState } from './useSheet'

/** The layout of many wheels: the server's answer to what is typed, with what a hand is moving where the hand has it. */
export function useLayout(state: SheetState, shown: Ref<boolean>) {
  const held = shallowRef<Held | null>(null)
  const wheelInHand = ref(-1)
  const path = computed(() => state.form.value.survey.layout)
  const asked = computed(() => {
    if (!shown.value) return null
    const survey = state.form.value.survey
    return { survey: held.value ? { ...survey, layout: putDown(path.value, held.value) } : survey }
  })
  const { answer } = useAnswer(asked, async (signal) =>
    asked.value ? await unwrap(api.POST('/api/calc/path', { body: trimmed(asked.value), signal })) : null,
  )
  function drop(): void {
    if (held.value) state.form.value.survey.layout = putDown(path.value, held.value) as Survey['layout']
    held.value = null
  }
  return { answer, held, wheelInHand, drop, shown }
}
export type LayoutState = ReturnType<typeof useLayout>
export const layoutKey: InjectionKey<LayoutState> = Symbol('layout')
