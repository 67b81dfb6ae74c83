// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { type EffectScope, effectScope, nextTick, ref } from 'vue'

import type { Choices, DriveOut } from '../api/client'
import { draftKey } from './draft'
import { blankForm } from './form'
import { useSheet } from './useSheet'

const choices = ref({ fields: {} } as unknown as Choices)
const kept = () => {
  const survey = blankForm('v-belt').survey
  survey.driver.driver_power = { text: '5', unit: 'hp', origin: 'nameplate' }
  return survey
}
const drive = () =>
  ref({ id: 'd1', family: 'v-belt', row_version: 4, survey: kept(), machine_is: {} } as unknown as DriveOut)

interface Asked {
  power: string
  answer: (body: object, status?: number) => void
  fail: () => void
  cancelled: boolean
}
let asked: Asked[]
const answer = (ratio: number) => ({ figures: { ratio }, problems: [], notes: {}, drawing: { ratio }, train: null })

/** A server that answers when the test says so. */
function server(request: Request): Promise<Response> {
  return new Promise((done, refuse) => {
    void request
      .clone()
      .json()
      .then((body: { survey: { driver?: { driver_power?: { text: string } } } }) => {
        const one: Asked = {
          power: body.survey.driver?.driver_power?.text ?? '',
          answer: (said, status = 200) =>
            done(new Response(JSON.stringify(said), { status, headers: { 'content-type': 'application/json' } })),
          fail: () => refuse(new TypeError('no connection')),
          cancelled: false,
        }
        request.signal.addEventListener('abort', () => {
          one.cancelled = true
          refuse(new DOMException('', 'AbortError'))
        })
        asked.push(one)
      })
  })
}
const settled = async () => {
  for (let i = 0; i < 20; i++) await new Promise((on) => setTimeout(on))
}
const scopes: EffectScope[] = []
const open = (of = drive()) => {
  const scope = effectScope()
  scopes.push(scope)
  return scope.run(() => useSheet(of, choices))!
}
const closed = () => scopes.splice(0).forEach((s) => s.stop())

describe('the sheet of one drive', () => {
  beforeEach(() => {
    asked = []
    localStorage.clear()
    vi.stubGlobal('fetch', server)
  })
  afterEach(() => {
    closed()
    vi.unstubAllGlobals()
  })

  it('says that it is worked out until it is, and that nobody answers where nobody does', async () => {
    const sheet = open()
    expect(sheet.waits.value).toBe('Working it out')
    await settled()
    asked[0]!.fail()
    await settled()
    expect(sheet.waits.value).toMatch(/no answer/)
    void sheet.ask()
    await settled()
    asked[1]!.answer(answer(2))
    await settled()
    expect([sheet.waits.value, sheet.unreachable.value, sheet.stale.value]).toEqual(['', false, false])
  })

  it('shows the answer to what stands there last, though an older one comes later', async () => {
    const sheet = open()
    await settled()
    sheet.form.value.survey.driver.driver_power!.text = '7.5'
    await settled()
    expect(asked.map((a) => a.power)).toEqual(['5', '7.5'])
    expect(asked[0]!.cancelled).toBe(true)
    asked[1]!.answer(answer(3))
    asked[0]!.answer(answer(1))
    await settled()
    expect(sheet.sheet.value?.figures.ratio).toBe(3)
  })

  it('keeps what was drawn last while nothing can be drawn, and asks nothing for an empty field more', async () => {
    const sheet = open()
    await settled()
    asked[0]!.answer(answer(2))
    await settled()
    sheet.form.value.survey.driver.driver_speed = { text: '', unit: 'rpm', origin: null }
    await settled()
    expect(asked).toHaveLength(1)
    sheet.form.value.survey.driver.driver_power!.text = 'much'
    await settled()
    asked[1]!.answer({ ...answer(2), drawing: null, problems: [{ field: 'driver_power', sentence: 'A number.' }] })
    await settled()
    expect(sheet.lastDrawn.value).toEqual({ ratio: 2 })
    expect(sheet.problems.value.get('driver_power')?.sentence).toBe('A number.')
  })

  it('keeps a draft on the device of what was typed, none of what stands on the record, and comes back to it', async () => {
    const of = drive()
    const sheet = open(of)
    await settled()
    expect(sheet.dirty.value).toBe(false)
    sheet.form.value.survey.driver.driver_power!.text = '10'
    await nextTick()
    window.dispatchEvent(new Event('pagehide'))
    await nextTick()
    expect(sheet.dirty.value).toBe(true)
    expect(JSON.parse(localStorage.getItem(draftKey('d1'))!).form.survey.driver.driver_power.text).toBe('10')
    closed()
    of.value = { ...of.value, row_version: 5, survey: { ...of.value.survey } } as DriveOut
    const again = open(of)
    expect([again.form.value.survey.driver.driver_power?.text, again.base.value]).toEqual(['10', 4])
    again.takeKept()
    await settled()
    expect([again.form.value.survey.driver.driver_power?.text, again.base.value, again.dirty.value]).toEqual([
      '5',
      5,
      false,
    ])
    window.dispatchEvent(new Event('pagehide'))
    expect(again.draft.value).toBeNull()
  })

  it('keeps the tool and the method when readings are put away, and no reading', async () => {
    const sheet = open()
    await settled()
    Object.assign(sheet.form.value.gauge, { method: 'sonic', tool: 'meter' })
    sheet.form.value.gauge.forces[0] = { text: '42', unit: 'Hz', origin: null }
    sheet.clearReadings()
    expect(sheet.form.value.gauge).toMatchObject({ method: 'sonic', tool: 'meter' })
    expect(sheet.form.value.gauge.forces.every((f) => !f.text)).toBe(true)
  })
})
