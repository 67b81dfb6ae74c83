import { computed, type Ref } from 'vue'

import { api, unwrap } from '../../api/client'
import type { components } from '../../api/schema'
import { trimmed } from '../../sheet/form'
import { useAnswer } from '../../sheet/useAnswer'
import type { SheetState } from '../../sheet/useSheet'
import type { SpeedAskState } from './useSpeedAsk'

export type MachineAnswer = components['schemas']['MachineOut']

/** What the machine feels at the new speed typed, or else at the speed wanted elsewhere at this station. */
export function useMachine(state: SheetState, asked: SpeedAskState, here: Ref<boolean>) {
  const body = computed(() => {
    const machine = state.form.value.survey.machine
    const { new_speed, amps_after, target } = asked.value
    const quantities = { ...machine.quantities, amps_after, new_speed: new_speed.text ? new_speed : target }
    return trimmed({
      new_speed_rad_per_s: null,
      sheet: state.form.value,
      machine: { ...machine, quantities },
    })
  })
  const watched = computed(() => (here.value ? body.value : null))
  const { answer } = useAnswer(watched, async (signal) =>
    watched.value ? unwrap(api.POST('/api/calc/speed/machine', { body: watched.value, signal })) : null,
  )
  return answer
}
