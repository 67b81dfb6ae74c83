import { computed, inject, provide, type Ref } from 'vue'

import type { Sheet } from '../api/client'
import { answersKey } from './useSheet'

type Answer = { notes: Sheet['notes']; problems: Sheet['problems'] }

/** A question's own notes and problems beside its fields; a field it knows nothing of asks the form around it. */
export function useAnswers(answer: Ref<Answer | null>): void {
  const around = inject(answersKey, null)
  const problems = computed(() => new Map(answer.value?.problems.map((p) => [p.field, p])))
  provide(answersKey, {
    note: (name) => answer.value?.notes[name] ?? around?.note(name),
    problem: (name) => problems.value.get(name) ?? around?.problem(name),
  })
}
