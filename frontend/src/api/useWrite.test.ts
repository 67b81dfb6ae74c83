// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick } from 'vue'

import { Refused, Unreachable } from './client'
import { useWrite } from './useWrite'

interface Sent {
  body: unknown
  key: string
  id: string
}

/** A server that fails as told, then answers. */
function server(failures: Error[]) {
  const sent: Sent[] = []
  const send = async (body: { n: number }, key: string, id: string) => {
    sent.push({ body, key, id })
    const failure = failures.shift()
    if (failure) throw failure
    return { id }
  }
  return { sent, send }
}
const open = (send: (body: { n: number }, key: string, id: string) => Promise<{ id: string }>) =>
  effectScope().run(() => useWrite('test', send))!
const refusal = () =>
  new Refused({
    title: '',
    status: 422,
    detail: 'No.',
    type: '',
    errors: [],
    since: [],
    current_version: null,
    wait_s: null,
  })

describe('one write', () => {
  beforeEach(() => {
    localStorage.clear()
    vi.useFakeTimers()
  })

  it('is sent again by itself under the same key and id until it is answered', async () => {
    const { sent, send } = server([new Unreachable(), new Unreachable()])
    const { write, waiting, busy } = open(send)
    const done = write({ n: 1 })
    await vi.advanceTimersByTimeAsync(10)
    expect([waiting.value, busy.value]).toEqual([true, true])
    await vi.advanceTimersByTimeAsync(9000)
    expect(await done).toEqual({ id: sent[0]!.id })
    expect(sent).toHaveLength(3)
    expect(new Set(sent.map((s) => s.key + s.id)).size).toBe(1)
    expect([waiting.value, busy.value]).toEqual([false, false])
  })

  it('goes at once when the connection is back', async () => {
    const { sent, send } = server([new Unreachable()])
    const { write } = open(send)
    const done = write({ n: 1 })
    await vi.advanceTimersByTimeAsync(10)
    window.dispatchEvent(new Event('online'))
    await done
    expect(sent).toHaveLength(2)
  })

  it('keeps its key over a reload, and takes a new one for another body or after an answer', async () => {
    const lost = server([new Unreachable()])
    void open(lost.send).write({ n: 1 })
    await vi.advanceTimersByTimeAsync(10)
    await nextTick()
    const after = server([])
    const page = open(after.send)
    await page.write({ n: 1 })
    expect(after.sent[0]!.key).toBe(lost.sent[0]!.key)
    await page.write({ n: 1 })
    await page.write({ n: 2 })
    expect(new Set(after.sent.map((s) => s.key)).size).toBe(3)
  })

  it('stops at a refusal, says it, and starts afresh', async () => {
    const { sent, send } = server([refusal()])
    const { write, problem } = open(send)
    expect(await write({ n: 1 })).toBeNull()
    expect(problem.value?.detail).toBe('No.')
    expect(await write({ n: 1 })).not.toBeNull()
    expect(problem.value).toBeNull()
    expect(sent[0]!.key).not.toBe(sent[1]!.key)
  })
})
