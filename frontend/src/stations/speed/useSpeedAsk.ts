import { useLocalStorage } from '@vueuse/core'
import { type InjectionKey } from 'vue'

import type { components } from '../../api/schema'
import { blank as blankOf, blankEntry as entry, filled, type Survey } from '../../sheet/form'

export type Made = Required<components['schemas']['WheelIn']>
export type Cones = Survey['cones']
export type Machine = Survey['machine']
export const blankCones = () => blankOf('survey').cones as unknown as Cones
export const completedCones = (kept?: unknown) => filled(blankCones(), kept)

const each = (...keys: string[]) => Object.fromEntries(keys.map((key) => [key, entry()]))
const TRIAL_KEYS = ['tach_driver', 'tach_driven', 'pressure', 'amps', 'noise']
export function blankTrial() {
  return {
    quantities: each(...TRIAL_KEYS.flatMap((key) => [`before_${key}`, `after_${key}`])),
    words: { change: '', before_leak: '', after_leak: '' } as Record<string, string>,
    note: '',
  }
}

function blank() {
  return {
    change: 'driver' as 'driver' | 'driven',
    new_diameter: entry(),
    new_teeth: '',
    after_driver: entry(),
    after_driven: entry(),
    target: entry(),
    new_speed: entry(),
    amps_after: entry(),
    tolerance: '3',
    keep: '' as '' | 'driver' | 'driven',
    meaning: '' as '' | 'slip' | 'diameter',
    made: {
      section: '',
      diameter: entry(),
      basis: 'outside',
      grooves: '1',
      bore: entry(),
      material: 'cast iron',
      speed: entry(),
    } as Made,
    trial: blankTrial(),
  }
}

/** What is asked at Speed without being on the record: kept on this device, drive by drive. */
export function useSpeedAsk(key: string) {
  return useLocalStorage(`tuyere-speed-${key}`, blank(), { mergeDefaults: true, onError: () => undefined })
}
export type SpeedAskState = ReturnType<typeof useSpeedAsk>
export const speedAskKey: InjectionKey<SpeedAskState> = Symbol('asked at speed')
