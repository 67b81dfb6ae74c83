import { computed, type InjectionKey, provide, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api, type DriveOut, unwrap } from '../../api/client'
import { trimmed, type WholeSheet } from '../../sheet/form'
import { useAnswer } from '../../sheet/useAnswer'
import type { SheetState } from '../../sheet/useSheet'
import { SPEED_ASKS, type SpeedAsk } from '../asks'
import { useCones } from './useCones'
import { useMachine } from './useMachine'
import { useMade } from './useMade'
import { speedAskKey, useSpeedAsk } from './useSpeedAsk'

/** What Speed's panel and its drawing share: the question asked, its answer, and the pair that is tried on the drawing. */
export function useSpeedDesk(drive: () => DriveOut, state: SheetState, question: () => SpeedAsk | null) {
  const router = useRouter()
  const asked = useSpeedAsk(drive().id)
  provide(speedAskKey, asked)
  const at = (name: SpeedAsk) => computed(() => question() === name)
  const felt = useMachine(state, asked, at('feels'))
  const conesForm = computed({
    get: () => state.form.value.survey.cones,
    set: (value) => (state.form.value.survey.cones = value),
  })
  const cones = useCones(conesForm, at('cones'))
  const madeForm = computed({ get: () => asked.value.made, set: (value) => (asked.value.made = value) })
  const made = useMade(madeForm, at('make'))

  const preview = ref<WholeSheet | null>(null)
  const previewed = computed(() => (at('target').value ? preview.value : null))
  const { answer: previewSheet } = useAnswer(previewed, async (signal) =>
    previewed.value ? unwrap(api.POST('/api/calc/sheet', { body: trimmed(previewed.value), signal })) : null,
  )
  /** The sheet with the pair that is tried, while there is one. */
  const tried = computed(() => (previewed.value && previewSheet.value?.drawing ? previewSheet.value : null))

  const asks = computed<readonly SpeedAsk[]>(() =>
    drive().kind.turns_open ? SPEED_ASKS : SPEED_ASKS.filter((a) => a !== 'turns' && a !== 'make'),
  )
  /** The drawing that takes the drive's place, for the questions that are not about it. */
  const drawn = computed<'cones' | 'wheel' | 'fan' | null>(() => {
    if (at('cones').value) return 'cones'
    if (at('make').value) return 'wheel'
    return at('feels').value && felt.value?.curves.length ? 'fan' : null
  })
  watch(question, () => (preview.value = null))
  function makeWheel(role: 'driver' | 'driven', line_m: number): void {
    const { driver_speed } = state.form.value.survey.driver
    const belts = state.sheaves.value.choices
    asked.value.made = {
      ...asked.value.made,
      section: belts.section,
      diameter: { text: `${(line_m * 1000).toFixed(2)} mm`, unit: 'mm', origin: null },
      basis: 'datum',
      grooves: belts.belt_count || '1',
      speed: role === 'driver' ? { ...driver_speed } : { ...asked.value.target },
    }
    void router.push(`/drives/${drive().id}/speed/make`)
  }
  return { asks, felt, cones, conesForm, made, madeForm, preview, tried, drawn, makeWheel }
}
export type SpeedDesk = ReturnType<typeof useSpeedDesk>
export const speedDeskKey: InjectionKey<SpeedDesk> = Symbol('speed desk')
