import { useEventListener, useLocalStorage } from '@vueuse/core'
import { v4 as uuid } from 'uuid'
import { type Ref, ref, shallowRef } from 'vue'

import { type Problem, Refused, signedIn, Unreachable } from './client'

const RETRY_AFTER_MS = 4_000

/**
 * One write, sent until the server answers, under one idempotency key: a repeat over a dropped
 * connection, even after a reload, stores nothing twice. A changed body gets a new key and a new client-made id.
 */
export function useWrite<Body, Answer>(name: string, send: (body: Body, key: string, id: string) => Promise<Answer>) {
  const busy = ref(false)
  const waiting = ref(false)
  const problem: Ref<Problem | null> = shallowRef(null)
  const pending = useLocalStorage(`tuyere-write-${name}`, { print: '', key: '', id: '' })
  let again: (() => void) | null = null
  let timer: ReturnType<typeof setTimeout> | undefined

  function forget(): void {
    pending.value = { print: '', key: '', id: '' }
    waiting.value = false
  }

  async function write(body: Body, who = signedIn()): Promise<Answer | null> {
    // What waited for a connection is not sent as somebody else's who signed in meanwhile.
    if (who !== signedIn()) return null
    const print = JSON.stringify(body)
    if (pending.value.print !== print) pending.value = { print, key: uuid(), id: uuid() }
    const { key, id } = pending.value
    busy.value = true
    problem.value = null
    clearTimeout(timer)
    try {
      const answer = await send(body, key, id)
      forget()
      return answer
    } catch (error) {
      if (error instanceof Refused) {
        problem.value = error.problem
        // Signed out, or a page out of date: nothing was kept or refused, and the same may be sent again.
        if (error.problem.status !== 401 && error.problem.status !== 400) forget()
        else waiting.value = false
        return null
      }
      if (!(error instanceof Unreachable)) throw error
      waiting.value = true
      return await new Promise<Answer | null>((resolve) => {
        again = () => {
          again = null
          resolve(write(body, who))
        }
        timer = setTimeout(() => again?.(), RETRY_AFTER_MS)
      })
    } finally {
      busy.value = false
    }
  }

  useEventListener(window, 'online', () => again?.())
  return { write, busy, waiting, problem, retry: () => again?.() }
}
