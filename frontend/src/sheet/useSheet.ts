import { useDebounceFn, useEventListener, useLocalStorage } from '@vueuse/core'
import { computed, type InjectionKey, onScopeDispose, ref, type Ref, shallowRef, watch } from 'vue'

import { api, type Choices, type DriveOut, Refused, type Sheet, unwrap } from '../api/client'
import { useAskAgain } from '../api/useAskAgain'
import { draftKey } from './draft'
import { serverNow } from '../api/clock'
import { blankForm, completedSurvey, filled, sheavesOf, type Survey, trimmed, usualUnit, type WholeSheet } from './form'

interface Draft {
  based_on: number
  /** The survey it began from; drafts of before have none. */
  was?: Survey
  at: string
  form: WholeSheet
}

const noSheaves = sheavesOf(blankForm().survey)

/** Numbers are dimmed only when the answer takes longer than a person notices. */
const SLOW_MS = 120

/** What is typed of fields that go by name, in the order of their names. */
function said(fields: object): object {
  const typed = Object.entries(fields as Record<string, string | { text: string }>).filter(([, e]) =>
    typeof e === 'string' ? e : e.text,
  )
  return Object.fromEntries(typed.sort(([a], [b]) => (a < b ? -1 : 1)))
}

/** A form as compared: the unit waiting in an empty field does not count. */
function print(form: unknown): string {
  return JSON.stringify(form, (key, value: unknown) => {
    // Of a text far too long for any field its beginning and its length are enough.
    if (typeof value === 'string' && value.length > 4000) return `${value.slice(0, 4000)}${value.length}`
    if (value && typeof value === 'object') {
      const entry = value as { text?: unknown; unit?: unknown }
      if ('unit' in entry && !entry.text) return null
      // Fields that only wait to be typed in are as good as none.
      if (key === 'forces') return (value as { text: string }[]).filter((e) => e.text)
      // By name, for the record keeps them in an order of its own.
      if (key === 'quantities' || key === 'words') return said(value)
    }
    return value
  })
}

/**
 * The working state of one drive's sheet: what is typed (kept as a draft on this device until it is kept on the
 * record), and the server's answer to it. Each change asks the server once; older questions are cancelled.
 */
export function useSheet(drive: Ref<DriveOut>, choices: Ref<Choices>) {
  const draft = useLocalStorage<Draft | null>(draftKey(drive.value.id), null, {
    serializer: { read: (text) => JSON.parse(text) as Draft, write: JSON.stringify },
    onError: () => undefined, // more text than the device will hold: it stays on the page
  })
  const form = ref<WholeSheet>(draft.value ? draft.value.form : kept())
  // A draft may be from before there was every field.
  form.value = filled(blankForm(drive.value.family), form.value)
  form.value.survey = completedSurvey(drive.value.family, form.value.survey)
  form.value.machine_is = drive.value.machine_is
  const base = ref(draft.value ? draft.value.based_on : drive.value.row_version)
  const was = shallowRef<Survey>(draft.value?.was ?? kept().survey)
  const sheet = shallowRef<Sheet | null>(null)
  const lastDrawn = shallowRef<Sheet['drawing']>(null)
  // A layout that cannot be read for the moment keeps the stages it had.
  const train = shallowRef<Sheet['train']>(null)
  const stale = ref(false)
  const unreachable = ref(false)
  /** Why nothing is worked out yet, said in place of what to survey; empty once it is. */
  const waits = computed(() =>
    sheet.value ? '' : unreachable.value ? 'Not worked out: no answer from the server' : 'Working it out',
  )
  const keptPrint = computed(() => print(kept().survey))
  const dirty = computed(() => print(form.value.survey) !== keptPrint.value)

  function kept(): WholeSheet {
    const fresh = blankForm(drive.value.family)
    fresh.survey = completedSurvey(drive.value.family, JSON.parse(JSON.stringify(drive.value.survey)) as Survey)
    fresh.machine_is = drive.value.machine_is
    waitIn(fresh)
    return fresh
  }

  /** Empty fields wait in the unit used last in them. */
  function waitIn(part: unknown): void {
    if (!part || typeof part !== 'object') return
    for (const [key, value] of Object.entries(part)) {
      const entry = value as { text?: unknown; unit?: string } | null
      if (entry && typeof entry === 'object' && typeof entry.text === 'string') {
        if (!entry.unit && !entry.text) entry.unit = usualUnit(choices.value, key)
      } else waitIn(value)
    }
  }

  let question: AbortController | null = null
  let asked = ''
  const retry = useAskAgain(() => void ask())
  async function ask(): Promise<void> {
    question?.abort()
    retry.stop()
    question = new AbortController()
    asked = print(form.value)
    const { signal } = question
    const slow = setTimeout(() => (stale.value = true), SLOW_MS)
    try {
      const answer = await unwrap(api.POST('/api/calc/sheet', { body: trimmed(form.value), signal }))
      sheet.value = answer
      if (answer.drawing) lastDrawn.value = answer.drawing
      if (answer.train || answer.figures.ratio || !form.value.survey.layout.wheels.length) train.value = answer.train
      stale.value = unreachable.value = false
      retry.answered()
    } catch (error) {
      if (signal.aborted) return
      stale.value = true
      unreachable.value = !(error instanceof Refused)
      if (unreachable.value) retry.later()
      else retry.answered()
    } finally {
      clearTimeout(slow)
    }
  }

  watch(
    form,
    () => {
      // An empty field more is no other question.
      if (print(form.value) !== asked) void ask()
      void saveSoon()
    },
    { deep: true },
  )
  function saveDraft(): void {
    const touched = print(form.value) !== print(kept())
    draft.value = touched
      ? { based_on: base.value, was: was.value, at: serverNow().toISOString(), form: form.value }
      : null
  }
  const saveSoon = useDebounceFn(saveDraft, 200)
  useEventListener(window, 'pagehide', saveDraft)
  watch([keptPrint, base], saveDraft)
  onScopeDispose(saveDraft)
  void ask()

  /** What is on the record now is what the next changes begin from. */
  function standsOnRecord(): void {
    base.value = drive.value.row_version
    was.value = kept().survey
  }

  /** Take the record's survey in place of the draft (the readings typed so far stay). */
  function takeKept(): void {
    standsOnRecord()
    form.value = { ...form.value, survey: kept().survey }
  }

  function clearReadings(): void {
    const blank = kept()
    const { tool, belt_state, method, stage } = form.value.gauge
    form.value.gauge = { ...blank.gauge, tool, belt_state, method, stage }
    form.value.tachometer = blank.tachometer
  }

  const problems = computed(() => new Map(sheet.value?.problems.map((p) => [p.field, p])))
  /** The stage on the driver's shaft, and what is on it where that is V-belts; nothing where it is not. */
  const first = computed(() => form.value.survey.stages[0]!)
  const sheaves = computed(() => ('choices' in first.value.fitted ? first.value.fitted : noSheaves))
  return {
    form,
    first,
    sheaves,
    sheet,
    lastDrawn,
    train,
    stale,
    unreachable,
    waits,
    dirty,
    draft,
    base,
    was,
    problems,
    standsOnRecord,
    takeKept,
    clearReadings,
    ask,
  }
}

/** What the server understood of each field, and its problem with it: whichever form the fields belong to. */
export interface FieldAnswers {
  note: (name: string) => Sheet['notes'][string] | undefined
  problem: (name: string) => Sheet['problems'][number] | undefined
}
export const answersKey: InjectionKey<FieldAnswers> = Symbol('answers to fields')

/** Flags that ask whether what was typed is meant: shown wherever it is typed. */
export const MEANT = ['light-load', 'far-apart', 'broad']

export type SheetState = ReturnType<typeof useSheet>
export const sheetKey: InjectionKey<SheetState> = Symbol('sheet')
export const focusKey: InjectionKey<Ref<string>> = Symbol('focused field')
/** Figures that a question of its own adds to the sheet's, so that their workings open too. */
export const moreFiguresKey: InjectionKey<Ref<Sheet['figures']>> = Symbol('more figures')
export const workingKey: InjectionKey<(figure: string) => void> = Symbol('open working')
