import type { Choices, Entry, SheetForm } from '../api/client'
import { settings } from '../settings'
import { completedFlat } from './flat/flatForm'
import { completedCones, completedMachine } from '../stations/speed/useSpeedAsk'
import { blankPath } from './layoutEdit'
import { blankToothed } from './toothed/toothedForm'

export type QuantityKey = keyof Required<SheetForm['survey']>['quantities'] & string
export type Survey = SheetForm['survey']

/** A field's unit when nothing is typed yet: the one used last in this field, else the system's usual one. */
export function usualUnit(choices: Choices, key: string): string {
  const field = choices.fields[key]
  if (!field) return ''
  const remembered = settings.value.units[key]
  const usual = settings.value.system === 'us' ? field.us : field.si
  return remembered && field.units.includes(remembered) ? remembered : usual
}

export function rememberUnit(key: string, unit: string): void {
  settings.value.units[key] = unit
}

/** The unit shown beside an entry: its own; else the US one that the server takes for a bare number, or in an empty field the usual one. */
export function shownUnit(choices: Choices, key: string, entry: Entry): string {
  return entry.unit || (entry.text ? choices.fields[key]?.us : usualUnit(choices, key)) || ''
}

const entry = (): Entry => ({ text: '', unit: '', origin: null })

export type LinkForm = Required<NonNullable<Survey['link']>>
export function blankLink(): LinkForm {
  return { link_tape: entry(), link_span: entry(), link_count: '', tabs: '', pulled: '', take_up: '', use: '' }
}

/** How many belts side by side a text says: a whole number up to 20, else none. */
export function beltCount(text: string | null | undefined): number {
  return /^\s*\d{1,2}\s*$/.test(text ?? '') ? Math.min(Number(text), 20) : 0
}

export type PathForm = NonNullable<Survey['path']>
export type WheelEntry = NonNullable<PathForm['wheels']>[number]

export function blankForm(): SheetForm {
  return {
    family: 'v-belt',
    survey: {
      quantities: {
        driver_power: entry(),
        driver_speed: entry(),
        hours_per_day: entry(),
        driver_diameter: entry(),
        driven_diameter: entry(),
        centre_distance: entry(),
        travel_in: entry(),
        travel_out: entry(),
        open_turns: entry(),
        most_turns: entry(),
        turn_drop: entry(),
      },
      choices: {
        section: '',
        belt: '',
        belt_count: '',
        ribs: '',
        driver_class: 'normal',
        driven_class: '',
        driver_basis: 'outside',
        driven_basis: 'outside',
        driver_groove: 'standard',
        driven_groove: 'standard',
        rotation: 'clockwise',
        centre_line_deg: '0',
        adjustable: '',
        idler: 'none',
        surroundings: 'clean',
        starts: 'seldom',
      },
      design: {
        design_speed: entry(),
        design_airflow: entry(),
        design_pressure: entry(),
        design_amps: entry(),
        design_turns: entry(),
      },
      path: blankPath(),
      toothed: blankToothed(''),
      flat: completedFlat(),
      link: blankLink(),
      machine: completedMachine(),
      cones: completedCones(),
    },
    gauge: { forces: [], deflection: entry(), belt_state: 'run in', tool: 'spring gauge' },
    tachometer: { tach_driver: entry(), tach_driven: entry() },
  }
}

/** Longest text worth sending: the server answers anything longer with a sentence, and the field keeps it all. */
const LONGEST = 120

/** The form as sent: every text short enough for the server to refuse in words. */
export function trimmed<T>(form: T): T {
  return JSON.parse(JSON.stringify(form), (key, value: unknown) =>
    typeof value === 'string' && value.length > LONGEST && key !== 'note' ? value.slice(0, LONGEST) : value,
  ) as T
}
