import { useDebounceFn, useLocalStorage } from '@vueuse/core'
import { computed, type InjectionKey, provide, ref, shallowRef } from 'vue'

import { api, type DriveOut, unwrap } from '../../api/client'
import type { components } from '../../api/schema'
import { useAnswer } from '../../sheet/useAnswer'

type Schemas = components['schemas']
export type Inspect = Schemas['InspectOut']
export type Sign = Inspect['signs'][number]
type Answered = boolean | number | string

/** Where signs are tapped, in the order in which a person looks. */
export const PLACES = [
  { key: 'hear', title: 'Heard' },
  { key: 'belt', title: 'On the belt' },
  { key: 'chain', title: 'On the chain' },
  { key: 'wheel', title: 'On wheels and shafts' },
  { key: 'strand', title: 'How it runs' },
  { key: 'machine', title: 'The machine' },
  { key: 'past', title: 'What was before' },
  { key: 'conveyor', title: 'The conveyor' },
] as const
export type Place = (typeof PLACES)[number]['key']

const STATES: Record<string, string> = {
  'locked out': 'Machine isolated: locked out, tried, guard off only now.',
  'running, guarded': 'Machine running, guard on: from outside the guard.',
  'running, guard on': 'Machine running, guard on: from outside the guard.',
  'qualified person': 'Live parts: a qualified person only.',
}
/** In which state the machine must be, as a sentence. */
export const stateOf = (state: string) => STATES[state] ?? `Machine: ${state}.`

/** What is tapped and found at a drive, kept on this device until it is done with, and what it comes to; each change asks the server once. */
export function useInspect(drive: () => DriveOut) {
  const blank = { seen: [] as string[], notSeen: [] as string[], checks: {} as Record<string, Answered>, leftOut: [] as string[], ticks: [] as string[] } // prettier-ignore
  const told = useLocalStorage(`tuyere-inspect-${drive().id}`, blank, { mergeDefaults: true })
  const { answer, unreachable, again } = useAnswer(
    () => told.value,
    (signal) =>
      unwrap(
        api.POST('/api/drives/{drive_id}/diagnosis', {
          params: { path: { drive_id: drive().id } },
          body: {
            seen: told.value.seen,
            not_seen: told.value.notSeen,
            checks: told.value.checks,
            left_out: told.value.leftOut,
            ticks: told.value.ticks,
          },
          signal,
        }),
      ),
  )
  const place = ref<Place>('hear')
  const places = computed(() => {
    const there = new Set(answer.value?.signs.map((s) => s.place))
    return PLACES.filter((p) => there.has(p.key)).map((p) => ({
      ...p,
      count: answer.value!.signs.filter((s) => s.place === p.key && told.value.seen.includes(s.key)).length,
    }))
  })
  const signs = computed(
    () => answer.value?.signs.filter((s) => s.place === place.value && (s.there || state(s.key) !== '')) ?? [],
  )
  const question = (key: string) => answer.value?.signs.find((s) => s.key === key)?.question ?? key

  /** There, then not there, then not said. */
  function tap(key: string): void {
    const { seen, notSeen } = told.value
    if (seen.includes(key))
      told.value = { ...told.value, seen: seen.filter((k) => k !== key), notSeen: [...notSeen, key] }
    else if (notSeen.includes(key)) told.value = { ...told.value, notSeen: notSeen.filter((k) => k !== key) }
    else told.value = { ...told.value, seen: [...seen, key] }
  }
  /** Seen; a second tap takes it back. */
  function see(key: string): void {
    if (told.value.seen.includes(key)) take(key)
    else
      told.value = {
        ...told.value,
        seen: [...told.value.seen, key],
        notSeen: told.value.notSeen.filter((k) => k !== key),
      }
  }
  /** Said not to be so; a second tap takes it back. */
  function deny(key: string): void {
    const { seen, notSeen } = told.value
    const rest = notSeen.filter((k) => k !== key)
    told.value = {
      ...told.value,
      seen: seen.filter((k) => k !== key),
      notSeen: notSeen.includes(key) ? rest : [...rest, key],
    }
  }
  function take(key: string): void {
    told.value = { ...told.value, seen: told.value.seen.filter((k) => k !== key) }
  }
  const state = (key: string) =>
    told.value.seen.includes(key) ? 'there' : told.value.notSeen.includes(key) ? 'not' : ''
  function check(key: string, found: Answered): void {
    told.value = { ...told.value, checks: { ...told.value.checks, [key]: found } }
  }
  function uncheck(key: string): void {
    const rest = Object.entries(told.value.checks).filter(([k]) => k !== key)
    told.value = { ...told.value, checks: Object.fromEntries(rest) }
  }
  function useFact(key: string, holds: boolean): void {
    const without = told.value.leftOut.filter((k) => k !== key)
    told.value = { ...told.value, leftOut: holds ? without : [...without, key] }
  }
  function tick(key: string, done: boolean): void {
    const without = told.value.ticks.filter((k) => k !== key)
    told.value = { ...told.value, ticks: done ? [...without, key] : without }
  }
  function clear(): void {
    told.value = { seen: [], notSeen: [], checks: {}, leftOut: [], ticks: [] }
  }

  const matched = shallowRef<{ key: string; question: string; no: boolean }[] | null>(null)
  const words = ref('')
  const look = useDebounceFn(async () => {
    if (!words.value.trim()) {
      matched.value = null
      return
    }
    const found = await unwrap(
      api.POST('/api/calc/diagnosis/match', { body: { sentence: words.value.slice(0, 1000) } }),
    )
    const mine = new Set(answer.value?.signs.map((s) => s.key))
    matched.value = [
      ...found.signs
        .filter((s) => mine.has(s.key))
        .slice(0, 6)
        .map((s) => ({ ...s, question: question(s.key), no: false })),
      ...(found.not_seen ?? [])
        .filter((s) => mine.has(s.key))
        .slice(0, 3)
        .map((s) => ({ ...s, question: question(s.key), no: true })),
    ]
  }, 250)
  const something = computed(() => told.value.seen.length + Object.keys(told.value.checks).length > 0)
  return { told, answer, unreachable, again, place, places, signs, question, tap, take, see, deny, state, check, uncheck, tick, useFact, clear, matched, words, look, something } // prettier-ignore
}

export type InspectDesk = ReturnType<typeof useInspect>
export const inspectKey: InjectionKey<InspectDesk> = Symbol('inspect')
export const provideInspect = (desk: InspectDesk): void => provide(inspectKey, desk)
