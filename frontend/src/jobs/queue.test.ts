import { describe, expect, it } from 'vitest'

import { mended, queued, refused, type Said, stuck, taken, toSend, withSaid } from './queue'
import type { Job } from './useJobs'

const said = (step: string, standing: Said['standing'] = 'done', row_version = 0): Said => ({
  step,
  standing,
  words: '',
  at: '2026-03-01T08:00:00Z',
  row_version,
  key: `${step} ${standing}`,
})
const job = {
  next: 'lock',
  steps: ['lock', 'try', 'off'].map((key) => ({ key, standing: '', words: '', row_version: 0 })),
} as unknown as Job

describe('what a device without signal says of a job', () => {
  it('shows at once, and the next step follows', () => {
    const now = withSaid(job, [said('lock'), said('try')])
    expect(now.next).toBe('off')
    expect(now.steps.map((s) => s.standing)).toEqual(['done', 'done', ''])
  })
  it('takes the later ones back with an early step, and what is said of them anew goes over the next version', () => {
    const standing = { ...job, steps: job.steps.map((s) => ({ ...s, standing: 'done' as const, row_version: 1 })) }
    const back = withSaid(standing, [{ ...said('try', '', 1), later: true }])
    expect(back.steps.map((s) => [s.standing, s.row_version])).toEqual([
      ['done', 1],
      ['', 1],
      ['', 2],
    ])
    expect(back.next).toBe('try')
  })
  it('keeps the order, and what is said anew replaces what waits, but not what may be on its way', () => {
    const both = queued(queued([], said('lock')), said('try'))
    expect(queued(both, said('try', 'passed')).map((s) => s.standing)).toEqual(['done', 'passed'])
    expect(queued(both, said('lock', '')).map((s) => s.step)).toEqual(['lock', 'try', 'lock'])
  })
  it('goes over the version that the server kept', () => {
    const after = taken([said('lock'), said('try'), said('lock', '')], 'lock done', 4)
    expect(toSend(after).map((s) => [s.step, s.row_version])).toEqual([
      ['try', 0],
      ['lock', 4],
    ])
    expect(withSaid(job, taken([said('lock')], 'lock done', 1)).next).toBe('try')
  })
  it('sends nothing behind a refusal, shows none of it as done, and keeps all of it in order', () => {
    const three = [said('lock'), said('try'), said('off')]
    const after = refused(taken(three, 'lock done', 1), 'try done', 'First: lock it.', 'step')
    expect(toSend(after)).toEqual([])
    expect(stuck(after).map((s) => [s.step, s.refused ?? ''])).toEqual([
      ['try', 'First: lock it.'],
      ['off', ''],
    ])
    expect(withSaid(job, after).next).toBe('try')
    // What is said of another step goes in front of it; the refused one said again is mended by that, and all goes on.
    expect(queued(after, said('lock', '', 1)).map((s) => s.step)).toEqual(['lock', 'lock', 'try', 'off'])
    expect(toSend(queued(after, said('try', 'passed'))).map((s) => [s.step, s.standing])).toEqual([
      ['try', 'passed'],
      ['off', 'done'],
    ])
    const again = mended(after, 'try done', { key: 'new', at: '2026-03-01T09:00:00Z', words: 'seen', row_version: 3 })
    expect(toSend(again)[0]).toMatchObject({ key: 'new', words: 'seen', row_version: 3 })
    expect(stuck(again)).toEqual([])
  })
})
