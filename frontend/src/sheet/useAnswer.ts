import { onScopeDispose, ref, shallowRef, watch, type WatchSource } from 'vue'

import { Refused } from '../api/client'
import { useAskAgain } from '../api/useAskAgain'

/** Asks the server again whenever what it watches changes; an older question is cancelled, the last answer stays meanwhile. One that gets no answer is asked again. */
export function useAnswer<T>(watched: WatchSource, ask: (signal: AbortSignal) => Promise<T>) {
  const answer = shallowRef<T | null>(null)
  const refused = shallowRef<Refused | null>(null)
  const unreachable = ref(false)
  let question: AbortController | null = null
  const retry = useAskAgain(() => void again())

  async function again(): Promise<void> {
    question?.abort()
    retry.stop()
    const mine = (question = new AbortController())
    try {
      const found = await ask(mine.signal)
      if (mine.signal.aborted) return
      answer.value = found
      refused.value = null
      unreachable.value = false
      retry.answered()
    } catch (error) {
      if (mine.signal.aborted) return
      refused.value = error instanceof Refused ? error : null
      unreachable.value = !(error instanceof Refused)
      if (unreachable.value) retry.later()
      else retry.answered()
    }
  }
  watch(watched, () => void again(), { deep: true, immediate: true })
  onScopeDispose(() => question?.abort())
  return { answer, refused, unreachable, again }
}
