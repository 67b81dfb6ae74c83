// @vitest-environment happy-dom
import { QueryClient } from '@tanstack/vue-query'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, ref } from 'vue'

import type { Choices, Entry } from '../api/client'
import { settings, swapUnits } from '../settings'
import { mounted, takenDown, typed } from '../testing/mounted'
import MeasureField from './MeasureField.vue'
import { answersKey, type FieldAnswers, focusKey } from './useSheet'

const length = { label: 'centre distance', units: ['in', 'ft', 'mm'], us: 'in', si: 'mm', origin: 'measured' }
const choices = { fields: { centre_distance: length } } as unknown as Choices
type Note = NonNullable<ReturnType<FieldAnswers['note']>>

/** The field on a page whose server says `note` or `problem` of it. */
function page(start: Partial<Entry> = {}) {
  const entry = ref<Entry>({ text: '', unit: '', origin: null, ...start })
  const note = ref<Note>()
  const problem = ref<ReturnType<FieldAnswers['problem']>>()
  const focus = ref('')
  const client = new QueryClient()
  client.setQueryData(['choices'], choices)
  const { el } = mounted(
    MeasureField,
    () => ({
      name: 'centre_distance',
      label: 'Centre distance',
      modelValue: entry.value,
      'onUpdate:modelValue': (now: Entry) => (entry.value = now),
    }),
    [
      [answersKey, { note: () => note.value, problem: () => problem.value }],
      [focusKey, focus],
    ],
    client,
  )
  return { el, entry, note, problem, focus, input: el.querySelector('input')! }
}

describe('a measure field', () => {
  beforeEach(() => {
    settings.value = { system: 'us', word: 'sheave', theme: 'auto', keys: true, units: {} }
    vi.stubGlobal('matchMedia', () => ({ matches: false }))
  })
  afterEach(() => {
    takenDown()
    vi.unstubAllGlobals()
  })

  it('is read in the unit that stood beside it when it was typed', async () => {
    const { el, entry } = page()
    expect(el.querySelector<HTMLSelectElement>('select.unit')!.value).toBe('in')
    typed(el, 'input', '31 1/2')
    expect(entry.value).toMatchObject({ text: '31 1/2', unit: 'in' })
    swapUnits()
    await nextTick()
    expect(entry.value, 'what is typed is not taken for millimetres').toMatchObject({ text: '31 1/2', unit: 'in' })
  })

  it('waits in the other system once units are swapped and nothing is typed', async () => {
    const { el, entry } = page()
    swapUnits()
    await nextTick()
    expect(entry.value.unit).toBe('mm')
    expect(el.querySelector<HTMLSelectElement>('select.unit')!.value).toBe('mm')
  })

  it('takes a unit that was written out as its own when it is left, not while it is typed', async () => {
    const { el, entry, note, input } = page()
    typed(el, 'input', '800 mm')
    note.value = { us: '31 1/2 in', si: '800 mm', unit: 'mm', offer: null } as Note
    await nextTick()
    expect(entry.value.unit).toBe('in')
    input.dispatchEvent(new Event('blur'))
    expect(entry.value.unit).toBe('mm')
    expect(Object.values(settings.value.units)).toContain('mm')
  })

  it('takes the unit it offers in place of the one that was written', async () => {
    const { el, entry, problem } = page({ text: '13 m', unit: 'in' })
    problem.value = {
      field: 'centre_distance',
      sentence: 'Between 1 and 1200 in.',
      offer: { unit: 'in', sentence: 'Or 13 in?' },
    } as ReturnType<FieldAnswers['problem']>
    await nextTick()
    const input = el.querySelector('input')!
    expect(input.getAttribute('aria-invalid')).toBe('true')
    expect(el.querySelector(`#${input.getAttribute('aria-describedby')}`)!.textContent).toContain(
      'Between 1 and 1200 in',
    )
    el.querySelector<HTMLButtonElement>('.offer')!.click()
    expect(entry.value).toMatchObject({ text: '13', unit: 'in' })
  })

  it('goes back to what stood there when it was entered, by Escape, and lets Escape through once it does', async () => {
    const { el, entry, input } = page({ text: '31', unit: 'in' })
    input.dispatchEvent(new Event('focus'))
    typed(el, 'input', '3')
    await nextTick()
    let heard = 0
    document.body.addEventListener('keydown', () => heard++)
    const escape = () => input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }))
    escape()
    expect([entry.value.text, heard]).toEqual(['31', 0])
    await nextTick()
    escape()
    expect(heard).toBe(1)
  })

  it('says which field is in hand, and whose number it is', async () => {
    const { el, entry, focus, input } = page({ text: '31', unit: 'in' })
    input.dispatchEvent(new Event('focus'))
    expect(focus.value).toBe('centre_distance')
    const origin = el.querySelector<HTMLSelectElement>('.origin select')!
    expect(origin.value).toBe('measured')
    origin.value = 'assumed'
    origin.dispatchEvent(new Event('change'))
    await nextTick()
    expect(entry.value.origin).toBe('assumed')
  })
})
