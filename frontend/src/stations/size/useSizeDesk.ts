import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, type InjectionKey, type Ref, ref, shallowRef } from 'vue'

import { api, unwrap } from '../../api/client'
import type { WholeSheet } from '../../sheet/form'
import { trimmed } from '../../sheet/form'
import { useAnswer } from '../../sheet/useAnswer'
import type { SizeAsk } from '../asks'
import { type CandidateFull, SIDE_BY_SIDE, type SizeAnswer, type SizeAsked } from './useSizeAsk'

/** What can be asked of a drive: the same for everyone, so asked once. */
export function useSizeChoices() {
  return useQuery({
    queryKey: ['size choices'],
    queryFn: () => unwrap(api.GET('/api/calc/size/choices')),
    staleTime: Infinity,
  })
}

/** What Size's panel and its board share: the question, the search's answer, and the drives picked out of it. */
export function useSizeDesk(asked: Ref<SizeAsked>, sheet: Ref<WholeSheet>, question: () => SizeAsk | null) {
  const searching = computed(() => ['choose', 'compare', 'why'].includes(question() ?? ''))
  const body = computed(() => (searching.value ? trimmed({ sheet: sheet.value, size: asked.value.size }) : null))
  const busy = ref(false)
  const { answer, unreachable, again } = useAnswer<SizeAnswer | null>(body, async (signal) => {
    if (!body.value) return null
    busy.value = true
    try {
      return await unwrap(api.POST('/api/calc/size', { body: body.value, signal }))
    } finally {
      if (!signal.aborted) busy.value = false
    }
  })
  /** Long enough that a person would take the last answer for this one's. */
  const lasting = refDebounced(busy, 500)
  const searches = computed(() => busy.value && lasting.value)
  const keys = computed(() => {
    const beside = asked.value.beside.slice(0, SIDE_BY_SIDE)
    if (question() === 'compare') return beside
    return question() === 'choose' && asked.value.chosen ? [asked.value.chosen] : []
  })
  const full = computed(() =>
    body.value && keys.value.length && !answer.value?.missing.length ? { ...body.value, keys: keys.value } : null,
  )
  const { answer: seen, refused } = useAnswer(full, async (signal) =>
    full.value ? unwrap(api.POST('/api/calc/size/candidates', { body: full.value, signal })) : null,
  )
  const candidates = computed(() => (refused.value ? [] : (seen.value?.candidates ?? [])))
  const chosen = computed(() => candidates.value.find((c) => c.key === asked.value.chosen) ?? null)

  /** The drive that a person names at “Why not?”. */
  const named = shallowRef<CandidateFull | null>(null)

  function choose(key: string): void {
    asked.value.chosen = asked.value.chosen === key ? '' : key
  }
  function besides(key: string): void {
    const now = asked.value.beside
    asked.value.beside = now.includes(key) ? now.filter((k) => k !== key) : [...now, key].slice(-SIDE_BY_SIDE)
  }
  return { asked, named, answer, busy, searches, unreachable, again, candidates, chosen, choose, besides, body }
}
export type SizeDesk = ReturnType<typeof useSizeDesk>
export const sizeDeskKey: InjectionKey<SizeDesk> = Symbol('size desk')
