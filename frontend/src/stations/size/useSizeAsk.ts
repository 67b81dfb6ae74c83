import { useLocalStorage } from '@vueuse/core'

import type { Entry } from '../../api/client'
import type { components } from '../../api/schema'

export type SizeForm = Required<components['schemas']['SizeForm']>
export type SizeAnswer = components['schemas']['SearchOut']
export type Listed = components['schemas']['Listed']
export type CandidateFull = components['schemas']['CandidateFull']
export const SIDE_BY_SIDE = 4

const entry = (): Entry => ({ text: '', unit: '', origin: null })
const QUANTITIES = [
  'power',
  'driver_speed',
  'driven_speed',
  'hours',
  'centre_low',
  'centre_high',
  'driver_most',
  'driven_most',
  'width_most',
  'driver_shaft',
  'driven_shaft',
  'pull_most',
  'keep_driver_outside',
  'keep_driven_outside',
]
const WORDS = {
  tolerance: '',
  driven_class: '',
  driver_class: '',
  idler: '',
  surroundings: '',
  starts: '',
  ambient: '',
  reserve: '',
  least_teeth: '',
  motor: '',
  frame: '',
  keyway: '',
  fast_wheels: '',
  keep_driver_fits: '',
  keep_driver_teeth: '',
  keep_driven_fits: '',
  keep_driven_teeth: '',
  before: '',
  load: '',
  days_a_year: '',
  price_kwh: '',
  neglected: '',
}
const SHAFT = ['overhang', 'bearing_span', 'shaft', 'bearing_rating', 'bushing_length', 'limit']
const each = (keys: string[]) => Object.fromEntries(keys.map((key) => [key, entry()]))

/** What is asked of a drive; blank asks nothing beyond its survey. */
export function blankSize() {
  return {
    size: {
      quantities: each(QUANTITIES),
      words: { ...WORDS },
      families: [],
      kinds: [],
      stage: 1,
      stock: 'common',
      weights: {},
      x: 'pull',
      y: 'width',
    } as SizeForm,
    chosen: '',
    beside: [] as string[],
    why: { kind: '', driver: 0, driven: 0, length: 0, count: 0 },
    shaft: {
      quantities: each(SHAFT),
      words: { side: 'driver', bearing: 'ball', motor: 'yes', frame: '', crank: '', keyway: '' } as Record<
        string,
        string
      >,
    },
  }
}
export type SizeAsked = ReturnType<typeof blankSize>

/** Something kept earlier, with every field there is now. */
export function completedSize(kept?: Partial<SizeAsked>): SizeAsked {
  const fresh = blankSize()
  const size = kept?.size
  return {
    ...fresh,
    ...kept,
    size: {
      ...fresh.size,
      ...size,
      quantities: { ...fresh.size.quantities, ...size?.quantities },
      words: { ...fresh.size.words, ...size?.words },
    },
    shaft: {
      quantities: { ...fresh.shaft.quantities, ...kept?.shaft?.quantities },
      words: { ...fresh.shaft.words, ...kept?.shaft?.words },
    },
  }
}

/** Kept on this device, drive by drive. */
export function useSizeAsk(key: string) {
  return useLocalStorage(`tuyere-size-${key}`, blankSize(), {
    onError: () => undefined,
    serializer: {
      read: (text) => completedSize(JSON.parse(text) as SizeAsked),
      write: (value) => JSON.stringify(value),
    },
  })
}
