import { useEventListener } from '@vueuse/core'
import { onScopeDispose } from 'vue'

const FIRST_MS = 2000
const LONGEST_MS = 30_000

/**
 * Asks a question again that got no answer: after two seconds, then after twice as long each time, and at once when
 * the device has a connection again; until it is answered or another one is asked.
 */
export function useAskAgain(ask: () => void) {
  let wait = FIRST_MS
  let timer: ReturnType<typeof setTimeout> | undefined
  function stop(): void {
    clearTimeout(timer)
    timer = undefined
  }
  function later(): void {
    stop()
    timer = setTimeout(ask, wait)
    wait = Math.min(2 * wait, LONGEST_MS)
  }
  function answered(): void {
    stop()
    wait = FIRST_MS
  }
  useEventListener(window, 'online', () => timer && ask())
  onScopeDispose(stop)
  return { stop, later, answered }
}
