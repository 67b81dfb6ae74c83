import { onScopeDispose, ref, shallowRef, watch, type WatchSource } from 'vue'

import { Refused } from '../api/client'

/** Asks the server again whenever what it watches changes; an older question is cancelled, the last answer stays meanwhile. */
export function useAnswer<T>(watched: WatchSource, ask: (signal: AbortSignal) => Promise<T>) {
  const answer = shallowRef<T | null>(null)
  const refused = shallowRef<Refused | null>(null)
  const unreachable = ref(false)
  let question: AbortController | null = null

  async function again(): Promise<void> {
    question?.abort()
    const mine = (question = new AbortController())
    try {
      const found = await ask(mine.signal)
      if (mine.signal.aborted) return
      answer.value = found
      refused.value = null
      unreachable.value = false
    } catch (error) {
      if (mine.signal.aborted) return
      refused.value = error instanceof Refused ? error : null
      unreachable.value = !(error instanceof Refused)
    }
  }
  watch(watched, () => void again(), { deep: true, immediate: true })
  onScopeDispose(() => question?.abort())
  return { answer, refused, unreachable, again }
}
