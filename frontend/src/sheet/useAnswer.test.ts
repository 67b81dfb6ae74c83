// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref } from 'vue'

import { Refused, Unreachable } from '../api/client'
import { useAnswer } from './useAnswer'

const question = ref('one')
let scope = effectScope()
let replies: (string | Error)[] = []
const asked: string[] = []
const open = () =>
  scope.run(() =>
    useAnswer(question, () => {
      asked.push(question.value)
      const reply = replies.shift() ?? 'answered'
      return reply instanceof Error ? Promise.reject(reply) : Promise.resolve(reply)
    }),
  )!

describe('a question that gets no answer', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    scope = effectScope()
    question.value = 'one'
    asked.length = 0
  })
  afterEach(() => {
    scope.stop()
    vi.useRealTimers()
  })

  it('is asked again by itself, later each time, until it is answered', async () => {
    replies = [new Unreachable('busy'), new Unreachable('busy'), 'seven']
    const { answer, unreachable } = open()
    await vi.advanceTimersByTimeAsync(1999)
    expect([asked.length, unreachable.value]).toEqual([1, true])
    await vi.advanceTimersByTimeAsync(1)
    expect(asked.length).toBe(2)
    await vi.advanceTimersByTimeAsync(3999)
    expect([asked.length, answer.value]).toEqual([2, null])
    await vi.advanceTimersByTimeAsync(1)
    expect([asked.length, answer.value, unreachable.value]).toEqual([3, 'seven', false])
    await vi.advanceTimersByTimeAsync(120_000)
    expect(asked.length).toBe(3)
  })

  it('is asked at once when the connection is back, and not any more when it is another or its page is left', async () => {
    replies = [new Unreachable('gone'), new Unreachable('gone')]
    const { answer } = open()
    await vi.advanceTimersByTimeAsync(0)
    window.dispatchEvent(new Event('online'))
    expect(asked.length).toBe(2)
    await vi.advanceTimersByTimeAsync(0)
    question.value = 'two'
    await vi.advanceTimersByTimeAsync(60_000)
    expect([asked, answer.value]).toEqual([['one', 'one', 'two'], 'answered'])
    replies = [new Unreachable('gone')]
    question.value = 'three'
    await vi.advanceTimersByTimeAsync(0)
    scope.stop()
    await vi.advanceTimersByTimeAsync(60_000)
    expect(asked.length).toBe(4)
  })

  it('is not asked again when the server refuses it', async () => {
    replies = [new Refused({ status: 422, title: '', detail: 'Not so.' } as never)]
    const { refused, unreachable } = open()
    await vi.advanceTimersByTimeAsync(60_000)
    expect([asked.length, refused.value?.message, unreachable.value]).toEqual([1, 'Not so.', false])
  })
})
