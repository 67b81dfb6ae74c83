import { useLocalStorage } from '@vueuse/core'
import { type InjectionKey } from 'vue'

import type { Entry, SheetForm } from '../../api/client'
import type { components } from '../../api/schema'

const entry = (): Entry => ({ text: '', unit: '', origin: null })
export type Made = Required<components['schemas']['WheelIn']>
export type Cones = Required<NonNullable<SheetForm['survey']['cones']>>
export type Machine = Required<NonNullable<SheetForm['survey']['machine']>>

const CONE_KEYS = ['centre_distance', 'cone_speed', 'cone_thickness', 'first_driving']
const each = (...keys: string[]) => Object.fromEntries(keys.map((key) => [key, entry()]))

export function blankCones(): Cones {
  const numbers = [1, 2, 3, 4, 5, 6, 7, 8]
  return {
    quantities: each(
      ...CONE_KEYS,
      ...numbers.flatMap((k) => [`driving_${k}`, `driven_${k}`]),
      ...[1, 2, 3, 4].flatMap((k) => [`before_${k}`, `after_${k}`]),
    ),
    words: { mode: 'design', lay: 'open', section: '', ...Object.fromEntries(numbers.map((k) => [`ratio_${k}`, ''])) },
    steps: 3,
  }
}
export function completedCones(kept?: Partial<Cones>): Cones {
  const fresh = blankCones()
  return {
    quantities: { ...fresh.quantities, ...kept?.quantities },
    words: { ...fresh.words, ...kept?.words },
    steps: kept?.steps ?? 3,
  }
}

export function completedMachine(kept?: Partial<Machine>): Machine {
  return {
    kind: kept?.kind ?? '',
    quantities: {
      ...each(
        'amps_now',
        'no_load_amps',
        'power_now',
        'pressure_now',
        'flow_now',
        'displacement',
        'most_speed',
        'altitude',
        'curve_speed',
      ),
      ...kept?.quantities,
    },
    words: { service_factor: '', temperature_now: '', temperature_new: '', ...kept?.words },
    curve: kept?.curve ?? [],
  }
}

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
