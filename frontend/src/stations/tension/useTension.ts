import { computed, type InjectionKey, provide, ref, watch } from 'vue'

import type { Choices, DriveOut, Entry, Sheet } from '../../api/client'
import { blankEntry, type Stage, usualUnit } from '../../sheet/form'
import type { SheetState } from '../../sheet/useSheet'

export type Tight = NonNullable<Sheet['tight']>
export type Method = Tight['methods'][number]
export type Mark = Tight['marks'][number]
export type Kept = DriveOut['tensions'][number]

/** What a wheel's shaft is asked, by field, in the order of a person's tape. */
export const SHAFT_FIELDS = [
  { key: 'overhang', field: 'overhang', label: 'Wheel’s middle to near bearing' },
  { key: 'bearing_span', field: 'bearing_span', label: 'Between the bearings' },
  { key: 'rating', field: 'bearing_rating', label: 'Near bearing’s rating C', but: 'bushing' },
  { key: 'life', field: 'set_hours', label: 'Life wanted', but: 'bushing' },
  { key: 'bushing_length', field: 'bushing_length', label: 'Bushing’s length', only: 'bushing' },
  { key: 'shaft', field: 'shaft_diameter', label: 'Shaft’s diameter' },
  { key: 'pull', field: 'shaft_pull', label: 'Most pull by its own sheet' },
  { key: 'weight', field: 'weight', label: 'Wheel’s weight' },
  { key: 'mounts', field: 'force', label: 'Pull that leans its mounts' },
] as const

/**
 * The Tension station's working state: which stage and method, what the tool showed, and what is kept with the stage.
 * What was typed for one method waits while another is looked at.
 */
export function useTension(state: SheetState, choices: () => Choices, drive: () => DriveOut) {
  const gauge = computed(() => state.form.value.gauge)
  // While an answer is on its way, or a field cannot be read for the moment, the last one stands.
  const tight = ref<Tight | null>(null)
  watch(
    () => state.sheet.value,
    (sheet) => {
      if (sheet) tight.value = sheet.tight ?? null
    },
    { immediate: true },
  )
  const method = computed<Method | undefined>(() => tight.value?.methods.find((m) => m.key === tight.value?.method))
  const stage = computed<Stage>(() => state.form.value.survey.stages[gauge.value.stage - 1] ?? state.first.value)
  const waiting = new Map<string, Entry[]>()

  const blanks = (count: number, field: string): Entry[] =>
    Array.from({ length: count }, () => ({ ...blankEntry(), unit: usualUnit(choices(), field) }))
  const slot = () => `${gauge.value.stage} ${tight.value?.method ?? ''}`

  watch(
    () => [tight.value?.number, tight.value?.method, tight.value?.values] as const,
    ([number, key, count]) => {
      if (number !== gauge.value.stage || !key || !count) return
      const field = method.value?.field ?? 'force'
      const now = gauge.value.forces
      for (const entry of now) if (!entry.text) entry.unit = usualUnit(choices(), field)
      if (now.length < count) gauge.value.forces = [...now, ...blanks(count - now.length, field)]
      // Fewer readings drop only the empty fields behind: what is typed is not lost.
      else while (gauge.value.forces.length > count && !gauge.value.forces.at(-1)?.text) gauge.value.forces.pop()
    },
    { immediate: true },
  )

  function leave(): void {
    waiting.set(slot(), gauge.value.forces)
  }
  function choose(key: string): void {
    leave()
    gauge.value.method = key
    gauge.value.forces = waiting.get(`${gauge.value.stage} ${key}`) ?? []
  }
  function goTo(number: number): void {
    leave()
    gauge.value.stage = number
    gauge.value.method = ''
    gauge.value.forces = []
  }

  /** A quantity asked beside the reading, or kept with the stage: as typed, or a blank that is not in the form yet. */
  function entry(of: Record<string, Entry>, key: string, field: string): Entry {
    return of[key] ?? { ...blankEntry(), unit: usualUnit(choices(), field) }
  }
  const kept = computed(() => drive().tensions.filter((t) => t.stage === gauge.value.stage))
  const read = computed(
    () => gauge.value.forces.some((f) => f.text) || Boolean(gauge.value.quantities.note_tension?.text),
  )
  // New or run in is known from the record: a set fitted today opens on new.
  watch(
    () => drive().hours.settling,
    (settling) => {
      if (!read.value) gauge.value.belt_state = settling ? 'new' : 'run in'
    },
    { immediate: true },
  )
  return { gauge, tight, method, stage, choose, goTo, entry, kept, read }
}

export type TensionDesk = ReturnType<typeof useTension>
export const tensionKey: InjectionKey<TensionDesk> = Symbol('tension')
export const provideTension = (desk: TensionDesk): void => provide(tensionKey, desk)
