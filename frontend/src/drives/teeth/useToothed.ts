import { computed, provide, type Ref } from 'vue'

import { api, type Toothed, type ToothedAsk, unwrap } from '../../api/client'
import { trimmed } from '../../sheet/form'
import { useAnswer } from '../../sheet/useAnswer'
import { answersKey } from '../../sheet/useSheet'
import { completedFitted, type ToothedForm } from '../../sheet/form'

/** The server's answers to what is typed of a toothed belt or a chain and its drive. */
export function useToothed(family: string, form: Ref<ToothedForm>) {
  const { answer } = useAnswer(form, (signal) => {
    const body: ToothedAsk = { family, toothed: form.value }
    return unwrap(api.POST('/api/calc/toothed', { body: trimmed(body), signal }))
  })
  const problems = computed(() => new Map(answer.value?.problems.map((p) => [p.field, p])))
  provide(answersKey, { note: (name) => answer.value?.notes[name], problem: (name) => problems.value.get(name) })
  const clear = () => (form.value = completedFitted(family) as ToothedForm)
  const drive = computed<Toothed['drive']>(() => answer.value?.drive ?? null)
  return { found: answer, drive, clear }
}
