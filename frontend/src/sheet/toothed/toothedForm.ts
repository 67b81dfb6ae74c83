import type { Entry, SheetForm, ToothedAsk } from '../../api/client'

export type Family = ToothedAsk['family']
type Kept = NonNullable<SheetForm['survey']['toothed']>
/** A toothed belt or chain and its drive as typed, with every field there. */
export interface ToothedForm {
  quantities: Record<string, Entry>
  words: Required<NonNullable<Kept['words']>>
  drive: Required<NonNullable<Kept['drive']>>
  dogs: Required<NonNullable<Kept['dogs']>>
  linear: Required<NonNullable<Kept['linear']>>
}

const SIZES: Record<Family, string[]> = {
  synchronous: ['pitch_span', 'tooth_height', 'belt_thickness', 'belt_width', 'wheel_outside'],
  'roller chain': [
    'pitch_span',
    'roller_diameter',
    'inner_width',
    'plate_height',
    'plate_thickness',
    'pin_diameter',
    'wheel_caliper',
  ],
}
const entry = (): Entry => ({ text: '', unit: '', origin: null })

export function blankToothed(family: string): ToothedForm {
  return {
    quantities: Object.fromEntries((SIZES[family as Family] ?? []).map((key) => [key, entry()])),
    words: {
      pitch_count: '',
      wheel_teeth: '',
      shape: '',
      material: '',
      body: '',
      plates: '',
      label: '',
      tool: 'caliper',
    },
    drive: { name: '', teeth_1: '', teeth_2: '', count: '', strands: '', centre_distance: entry() },
    dogs: {
      fitted: false,
      dog_span: entry(),
      dog_count: '',
      conveyor_span: entry(),
      conveyor_count: '',
      pitches_per_dog: '',
      dogs_engaged: '',
      conveyor: '',
      bears_on: '',
      take_up_side: '',
      pressure_plate: '',
      wear_strips: '',
    },
    linear: {
      fitted: false,
      linear_span: entry(),
      linear_mass: entry(),
      linear_target: entry(),
      linear_within: '',
      linear_pluck: entry(),
    },
  }
}

/** What was kept, with a field for everything that may be typed. */
export function completedToothed(family: string, kept: Kept | undefined): ToothedForm {
  const fresh = blankToothed(family)
  return {
    quantities: { ...fresh.quantities, ...kept?.quantities },
    words: { ...fresh.words, ...kept?.words },
    drive: { ...fresh.drive, ...kept?.drive },
    dogs: { ...fresh.dogs, ...kept?.dogs },
    linear: { ...fresh.linear, ...kept?.linear },
  }
}

export const isToothed = (family: string): family is Family => family in SIZES
