import { useDebounceFn, useEventListener, useLocalStorage } from '@vueuse/core'
import { computed, type InjectionKey, onScopeDispose, provide, type Ref, ref, watch } from 'vue'

import { api, type Choices, type FindForm, unwrap } from '../../api/client'
import { trimmed, usualUnit } from '../../sheet/form'
import { useAnswer } from '../../sheet/useAnswer'
import { answersKey } from '../../sheet/useSheet'

export const FIND_FIELDS = [
  'top_width',
  'thickness',
  'belt_angle',
  'outside_length',
  'inside_length',
  'laid_out_length',
  'groove_width',
  'groove_angle',
  'groove_depth',
  'groove_spacing',
  'wheel_diameter',
  'bore',
  'key_width',
  'hub_large_end',
  'ride',
] as const

export function blankFind(choices: Choices): FindForm {
  return {
    quantities: Object.fromEntries(
      FIND_FIELDS.map((key) => [key, { text: '', unit: usualUnit(choices, key), origin: null }]),
    ),
    words: {
      label: '',
      marks: '',
      construction: '',
      machine: '',
      ribs: '',
      tool: 'caliper',
      belt_section: '',
      made_for: '',
      groove_kind: 'standard',
      ride_way: 'proud',
    },
    set_signs: [],
  }
}

/** What stays on this device until it is on a slip: the measurements, what was chosen, what the drive does to its belts. */
interface Draft {
  form: FindForm
  chosen: string
  duties: string[]
  joined: boolean
  slack_clutch: boolean
}

/** The working state of "which belt is this": the form as typed, kept on this device, and the server's two answers to it. */
export function useFind(key: string, choices: Ref<Choices>, known: Ref<Partial<FindForm> | null | undefined>) {
  const draft = useLocalStorage<Draft | null>(`tuyere-find-${key}`, null, {
    serializer: { read: (text) => JSON.parse(text) as Draft, write: JSON.stringify },
    onError: () => undefined,
  })
  const form = ref<FindForm>(draft.value?.form ?? merged(known.value))
  const chosen = ref(draft.value?.chosen ?? '')
  const duties = ref<string[]>(draft.value?.duties ?? [])
  const joined = ref(draft.value?.joined ?? false)
  const slackClutch = ref(draft.value?.slack_clutch ?? false)

  function merged(from: Partial<FindForm> | null | undefined): FindForm {
    const fresh = blankFind(choices.value)
    if (!from) return fresh
    const quantities = { ...fresh.quantities }
    for (const [name, entry] of Object.entries(from.quantities ?? {}))
      if (entry.text) quantities[name as keyof typeof quantities] = entry
    return { quantities, words: { ...fresh.words, ...from.words }, set_signs: from.set_signs ?? [] }
  }
  // The record may arrive after the page: it fills a form in which nothing is typed yet.
  watch(known, (from) => {
    if (from && !draft.value) form.value = merged(from)
  })

  const state = { form, chosen, duties, joined, slackClutch }
  function save(): void {
    draft.value = {
      form: form.value,
      chosen: chosen.value,
      duties: duties.value,
      joined: joined.value,
      slack_clutch: slackClutch.value,
    }
  }
  const saveSoon = useDebounceFn(save, 200)
  let touched = false
  watch(
    [form, chosen, duties, joined, slackClutch],
    () => {
      touched = true
      void saveSoon()
    },
    { deep: true },
  )
  const saveNow = () => touched && save()
  useEventListener(window, 'pagehide', saveNow)
  onScopeDispose(saveNow)

  const identified = useAnswer(form, (signal) =>
    unwrap(api.POST('/api/calc/identify', { body: trimmed(form.value), signal })),
  )
  const checked = useAnswer(form, (signal) =>
    unwrap(api.POST('/api/calc/groove-check', { body: trimmed(form.value), signal })),
  )
  const problems = computed(
    () =>
      new Map(
        [...(checked.answer.value?.problems ?? []), ...(identified.answer.value?.problems ?? [])].map((p) => [
          p.field,
          p,
        ]),
      ),
  )
  const answers = {
    note: (name: string) => checked.answer.value?.notes[name] ?? identified.answer.value?.notes[name],
    problem: (name: string) => problems.value.get(name),
  }
  const anything = computed(
    () =>
      Object.values(form.value.quantities).some((e) => e.text) ||
      ['label', 'marks', 'construction', 'ribs'].some((k) => form.value.words[k as 'label']),
  )
  function clear(): void {
    form.value = blankFind(choices.value)
    chosen.value = ''
    duties.value = []
    joined.value = slackClutch.value = false
  }
  /** Fields under this component answer to the find form. */
  const answerFields = () => provide(answersKey, answers)
  return { ...state, identified, checked, anything, clear, answerFields }
}

export type FindState = ReturnType<typeof useFind>
export const findKey: InjectionKey<FindState> = Symbol('find')
