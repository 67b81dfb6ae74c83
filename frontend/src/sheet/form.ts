import blanks from '../api/blanks.json'
import type { Choices, Entry } from '../api/client'
import type { components } from '../api/schema'
import { settings } from '../settings'
import { completed } from './layoutEdit'

/** A form with everything there: what the server may leave out, a page may not. */
export type Whole<T> = T extends readonly (infer U)[]
  ? Whole<U>[]
  : T extends object
    ? { [K in keyof T]-?: Whole<Exclude<T[K], undefined>> }
    : T
type Schemas = components['schemas']
export type Survey = Whole<Schemas['SurveyForm']>
export type Stage = Survey['stages'][number]
export type SheavesForm = Whole<Schemas['SheavesForm']>
export type ToothedForm = Whole<Schemas['ToothedForm']>
export type FlatForm = Whole<Schemas['FlatForm']>
export type LinkForm = SheavesForm['link']
export type LayoutForm = Schemas['LayoutForm']
export type WheelEntry = Schemas['WheelEntry']
export interface WholeSheet {
  survey: Survey
  gauge: Whole<Schemas['GaugeForm']>
  tachometer: Whole<Schemas['TachometerForm']>
  align: Whole<Schemas['AlignForm']>
  /** What is so of its machine: what may stand in to get home goes by that. */
  machine_is: string[]
}

type Blanks = typeof blanks
/** A form with nothing in it, as the server's models have it. */
export function blank<K extends keyof Blanks>(name: K): Blanks[K] {
  return JSON.parse(JSON.stringify(blanks[name])) as Blanks[K]
}
export const blankEntry = (): Entry => ({ text: '', unit: '', origin: null })

const rest = (known: Record<string, unknown>, but: object) =>
  Object.fromEntries(Object.entries(known).filter(([key]) => !(key in but)))

/** What is known, with everything else of the blank; lists as they are known. */
export function filled<T>(empty: T, known: unknown): T {
  if (known === undefined || known === null) return empty
  if (Array.isArray(empty) || typeof empty !== 'object' || empty === null || typeof known !== 'object')
    return known as T
  const has = known as Record<string, unknown>
  // In the blank's order, so that two forms that say the same are written the same.
  const found = Object.entries(empty).map(([key, value]) => [key, filled<unknown>(value, has[key])] as const)
  return { ...Object.fromEntries(found), ...rest(has, empty) } as T
}

/** What is on a stage of that kind of drive, with a field for everything that may be typed. */
export function completedFitted(family: string, known?: unknown): Stage['fitted'] {
  const empty = (blank('fitted') as Record<string, unknown>)[family] ?? { family, quantities: {}, words: {} }
  return filled(empty, known) as Stage['fitted']
}

/** A survey with a field for everything that may be typed. */
export function completedSurvey(family: string, known: Schemas['SurveyForm']): Survey {
  const whole = filled(blank('survey') as unknown as Survey, known)
  whole.stages = (known.stages ?? []).map((stage) => ({
    ...filled(blank('stage') as unknown as Stage, stage),
    fitted: completedFitted(stage.fitted?.family ?? family, stage.fitted),
  }))
  if (!whole.stages.length)
    whole.stages = [{ ...(blank('stage') as unknown as Stage), fitted: completedFitted(family) }]
  whole.layout = completed(known.layout) as Survey['layout']
  return whole
}

export const sheavesOf = (survey: Survey) => survey.stages[0]!.fitted as SheavesForm

/** A unit chosen is remembered where it was chosen: on that drive, or on that page. */
const placed = (key: string) => `${/^\/drives\/[^/]+/.exec(location.pathname)?.[0] ?? location.pathname} ${key}`
const MOST_UNITS = 500

/** A field's unit when nothing is typed yet: the one used last in this field of this drive, else the system's usual one. */
export function usualUnit(choices: Choices, key: string): string {
  const field = choices.fields[key]
  if (!field) return ''
  const remembered = settings.value.units[placed(key)]
  const usual = settings.value.system === 'us' ? field.us : field.si
  return remembered && field.units.includes(remembered) ? remembered : usual
}

export function rememberUnit(key: string, unit: string): void {
  const others = Object.entries(settings.value.units).filter(([k]) => k !== placed(key))
  settings.value.units = Object.fromEntries([...others.slice(1 - MOST_UNITS), [placed(key), unit]])
}

/** The unit shown beside an entry: its own; else the US one that the server takes for a bare number, or in an empty field the usual one. */
export function shownUnit(choices: Choices, key: string, entry: Entry): string {
  return entry.unit || (entry.text ? choices.fields[key]?.us : usualUnit(choices, key)) || ''
}

/** How many belts side by side a text says: a whole number up to 20, else none. */
export function beltCount(text: string | null | undefined): number {
  return /^\s*\d{1,2}\s*$/.test(text ?? '') ? Math.min(Number(text), 20) : 0
}

export function blankForm(family = Object.keys(blanks.fitted)[0]!): WholeSheet {
  return {
    survey: completedSurvey(family, { stages: [] }),
    gauge: blank('gauge') as WholeSheet['gauge'],
    tachometer: blank('tachometer'),
    align: blank('align') as WholeSheet['align'],
    machine_is: [],
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
