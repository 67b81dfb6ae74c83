import { computed, type InjectionKey, provide, ref, watch } from 'vue'

import type { Choices, DriveOut, Entry, Sheet } from '../../api/client'
import { blank, blankEntry, type Stage, usualUnit } from '../../sheet/form'
import type { SheetState } from '../../sheet/useSheet'

export type Aligned = NonNullable<Sheet['align']>
export type AlignStep = Aligned['steps'][number]
export type AlignmentKept = DriveOut['alignments'][number]

/** Where the feet are, as asked on the picture that numbers them. */
export const FEET_FIELDS = [
  { key: 'front', label: 'a  Wheel’s middle to front feet' },
  { key: 'span', label: 'b  Front to back feet' },
  { key: 'width', label: 'c  Left to right feet' },
  { key: 'height', label: 'd  Shaft above the feet' },
] as const

/** The Align station's working state: which pair, what was read, what stands with the stage, and which correction is looked at. */
export function useAlign(state: SheetState, choices: () => Choices, drive: () => DriveOut) {
  const align = computed(() => state.form.value.align)
  // While an answer is on its way, or a field cannot be read for the moment, the last one stands.
  const answer = ref<Aligned | null>(null)
  watch(
    () => state.sheet.value,
    (sheet) => {
      if (sheet) answer.value = sheet.align ?? null
    },
    { immediate: true },
  )
  const stage = computed<Stage>(() => state.form.value.survey.stages[align.value.stage - 1] ?? state.first.value)
  const kept = computed(() => stage.value.kept)
  /** How what is kept of the wheel that moves is called. */
  const key = (what: string) => `align_${answer.value?.wheel ?? 1}_${what}`
  function entry(of: Record<string, Entry>, name: string, field: string): Entry {
    return of[name] ?? { ...blankEntry(), unit: usualUnit(choices(), field) }
  }
  const word = (name: () => string) =>
    computed({
      get: () => kept.value.words[name()] ?? '',
      set: (said: string) => (kept.value.words[name()] = said),
    })

  /** What was typed by a method before another was looked at: it is there again when one goes back. */
  const typed = new Map<string, (typeof align.value.readings)[number]>()
  function choose(i: number, method: string): void {
    const now = align.value.readings[i]!
    typed.set(`${i} ${now.method}`, now)
    align.value.readings[i] = typed.get(`${i} ${method}`) ?? { ...blank('align_reading'), method }
  }
  function add(method: string): void {
    align.value.readings.push({ ...blank('align_reading'), method })
  }
  function remove(i: number): void {
    typed.clear()
    align.value.readings.splice(i, 1)
    if (!align.value.readings.length) add('straightedge')
  }
  /** Empty for the next reading: by the same methods, the checks as they were. */
  function clear(): void {
    typed.clear()
    align.value.readings = align.value.readings.map((r) => ({ ...blank('align_reading'), method: r.method }))
  }
  function goTo(number: number): void {
    align.value.stage = number
    align.value.wheel = 0
    clear()
  }
  const read = computed(() =>
    align.value.readings.some((r) => Object.values(r.quantities).some((e) => e.text) || r.words.track),
  )
  const looked = ref(0)
  const step = computed<AlignStep | undefined>(
    () => answer.value?.steps[Math.min(looked.value, answer.value.steps.length - 1)],
  )
  watch(
    () => answer.value?.steps.map((s) => s.kind).join(),
    () => (looked.value = 0),
  )
  /** Which reading is being typed: the drawing shows where its points are. */
  const at = ref(0)
  const method = computed(() => answer.value?.taken[Math.min(at.value, answer.value.taken.length - 1)]?.method ?? '')
  const before = computed(() =>
    drive().alignments.filter(
      (a) => a.stage === align.value.stage && (!answer.value || a.wheel === answer.value.wheel),
    ),
  )
  return {
    align,
    answer,
    stage,
    kept,
    key,
    entry,
    word,
    choose,
    add,
    remove,
    clear,
    goTo,
    read,
    looked,
    step,
    at,
    method,
    before,
  }
}

export type AlignDesk = ReturnType<typeof useAlign>
export const alignKey: InjectionKey<AlignDesk> = Symbol('align')
export const provideAlign = (desk: AlignDesk): void => provide(alignKey, desk)
