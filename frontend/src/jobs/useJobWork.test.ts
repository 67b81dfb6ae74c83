// @vitest-environment happy-dom
import { QueryClient } from '@tanstack/vue-query'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { rememberPerson } from '../api/client'
import { mounted, takenDown } from '../testing/mounted'
import { queueKey } from './queues'
import type { Job } from './useJobs'
import { type JobWork, useJobWork } from './useJobWork'

const KEYS = ['tell', 'stop', 'lock', 'try', 'off']
const PROBLEM = { title: '', type: '', errors: [], since: [], current_version: null, wait_s: null }

/** A server that keeps steps in order, each key once; `fails` says before and after keeping what goes wrong. */
class Server {
  kept: { step: string; key: string; person: string | null }[] = []
  sent: string[] = []
  steps = KEYS.map((key) => ({ key, do: key, standing: '', words: '', row_version: 0 }))
  fails: (Failure | undefined)[] = []
  refuse: Record<string, string> = {}
  offline = false

  readonly answer = async (request: Request): Promise<Response> => {
    if (this.offline) throw new TypeError('no connection')
    if (request.url.endsWith('/api/session')) return this.said({ person_id: 'p1', name: 'Ines', sites: [] })
    if (request.method === 'GET') return this.said(this.job())
    const body = (await request.json()) as { step: string; standing: string; row_version: number }
    const key = request.headers.get('Idempotency-Key')!
    this.sent.push(body.step)
    const fails = this.fails.shift()
    if (fails === 'lost before') throw new TypeError('no connection')
    if (typeof fails === 'number') return this.said({ ...PROBLEM, status: fails, detail: `Not now: ${fails}.` }, fails)
    const why = this.refuse[body.step]
    if (why) return this.said({ ...PROBLEM, status: 422, detail: why }, 422)
    const step = this.steps.find((s) => s.key === body.step)!
    if (!this.kept.some((k) => k.key === key)) {
      if (step.row_version !== body.row_version)
        return this.said({ ...PROBLEM, status: 409, detail: 'Said meanwhile.' }, 409)
      step.row_version += 1
      step.standing = body.standing
      this.kept.push({ step: body.step, key, person: request.headers.get('Tuyere-Person') })
    }
    if (fails === 'lost after') throw new TypeError('no connection')
    return this.said(this.job(step.row_version))
  }
  job(row_version = 1) {
    const next = this.steps.find((s) => !s.standing)?.key ?? ''
    return { id: 'j1', title: 'Change', drive_id: 'd1', standing: 'under way', row_version, steps: this.steps, next }
  }
  said(body: object, status = 200): Response {
    return new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } })
  }
}
type Failure = 'lost before' | 'lost after' | 400 | 401 | 403 | 429 | 503

const settled = async (ms = 0) => {
  await vi.advanceTimersByTimeAsync(ms)
  for (let i = 0; i < 30; i++) await vi.advanceTimersByTimeAsync(1)
}
/** The page of a job in the hands of `person`. */
async function page(person = 'p1'): Promise<JobWork> {
  let work: JobWork | undefined
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  client.setQueryData(['session'], { person_id: person, name: person, sites: [] })
  rememberPerson(person)
  mounted({ setup: () => ((work = useJobWork('j1')), () => null) }, () => ({}), [], client)
  await settled()
  return work!
}
const step = (work: JobWork, key: string): Job['steps'][number] => work.job.value!.steps.find((s) => s.key === key)!

/** Numbers that are the same in every run: a linear congruence. */
function drawn(seed: number): () => number {
  let now = seed
  return () => (now = (now * 48271) % 2147483647) / 2147483647
}

describe('a job in hand', () => {
  let server: Server
  beforeEach(() => {
    vi.useFakeTimers()
    localStorage.clear()
    server = new Server()
    vi.stubGlobal('fetch', server.answer)
  })
  afterEach(() => {
    takenDown()
    vi.unstubAllGlobals()
    vi.useRealTimers()
  })

  it.each(Array.from({ length: 25 }, (_, n) => n + 1))(
    'keeps each step once and in order, whatever fails (%i)',
    async (seed) => {
      const draw = drawn(seed * 7919)
      const kinds: Failure[] = ['lost before', 'lost after', 400, 401, 403, 429, 503]
      server.fails = Array.from({ length: 12 }, () =>
        draw() < 0.5 ? kinds[Math.floor(draw() * kinds.length)] : undefined,
      )
      let work = await page()
      for (const key of KEYS) {
        work.say(step(work, key), 'done')
        expect(work.job.value!.next).toBe(KEYS[KEYS.indexOf(key) + 1] ?? '')
        if (draw() < 0.6) await settled(draw() * 4000)
        if (draw() < 0.25) {
          takenDown()
          work = await page() // the page was loaded anew
        }
      }
      for (let i = 0; i < 20; i++) await settled(5100)
      expect(server.kept.map((k) => k.step)).toEqual(KEYS)
      expect(new Set(server.kept.map((k) => k.person))).toEqual(new Set(['p1']))
      expect([work.unsent.value, work.held.value]).toEqual([false, ''])
    },
  )

  it('shows what was said without signal, and sends it when that is back', async () => {
    const work = await page()
    server.offline = true
    for (const key of KEYS.slice(0, 3)) work.say(step(work, key), 'done')
    await settled(20_000)
    expect([work.job.value!.next, work.waiting.value, work.unsent.value]).toEqual(['try', 3, true])
    server.offline = false
    window.dispatchEvent(new Event('online'))
    await settled(100)
    expect(server.kept.map((k) => k.step)).toEqual(KEYS.slice(0, 3))
  })

  it('sends nothing behind a refusal until it is mended or withdrawn', async () => {
    const work = await page()
    server.offline = true
    for (const key of KEYS) work.say(step(work, key), 'done')
    server.offline = false
    server.refuse = { lock: 'That is before the job was planned.' }
    await settled(5100)
    expect(server.sent.slice(-1)).toEqual(['lock'])
    expect(work.stuck.value.map((s) => s.step)).toEqual(['lock', 'try', 'off'])
    expect(work.job.value!.next).toBe('lock')
    server.refuse = {}
    work.mend(work.stuck.value[0]!, 'seen', '2026-03-01T09:00:00Z')
    await settled(100)
    expect(server.kept.map((k) => k.step)).toEqual(KEYS)
    expect(work.stuck.value).toEqual([])
  })

  it("is never sent by another's hand on the same device, and waits for its own", async () => {
    const work = await page()
    server.offline = true
    work.say(step(work, 'tell'), 'done')
    await settled(100)
    takenDown()
    server.offline = false
    await page('p2')
    await settled(30_000)
    expect(server.sent.filter((s) => s === 'tell')).toEqual([])
    expect(localStorage.getItem(queueKey('p1', 'j1'))).toContain('tell')
    takenDown()
    await page()
    await settled(6000)
    expect(server.kept.map((k) => [k.step, k.person])).toEqual([['tell', 'p1']])
  })
})
