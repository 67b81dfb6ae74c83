// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest'

import type { Choices } from '../api/client'
import { say, settings, swapUnits } from '../settings'
import { ago, dueText } from '../words'
import { blankForm, sheavesOf, rememberUnit, shownUnit, trimmed, usualUnit } from './form'

const length = { label: 'centre distance', units: ['in', 'ft', 'mm'], us: 'in', si: 'mm', origin: 'measured' }
const choices = { fields: { centre_distance: length } } as unknown as Choices

beforeEach(() => {
  settings.value = { system: 'us', word: 'sheave', theme: 'auto', keys: true, units: {} }
})

describe('the form', () => {
  it('takes the unit used last in the field, else the usual one of the system', () => {
    expect(usualUnit(choices, 'centre_distance')).toBe('in')
    swapUnits()
    expect(usualUnit(choices, 'centre_distance')).toBe('mm')
    rememberUnit('centre_distance', 'ft')
    expect(usualUnit(choices, 'centre_distance')).toBe('ft')
    history.pushState({}, '', '/drives/another/survey')
    expect(usualUnit(choices, 'centre_distance'), 'another drive asks in its own').toBe('mm')
    history.pushState({}, '', '/')
    expect(usualUnit(choices, 'centre_distance')).toBe('ft')
    rememberUnit('centre_distance', 'furlong')
    expect(usualUnit(choices, 'centre_distance')).toBe('mm')
  })

  it('shows the unit the server will take for a bare number', () => {
    expect(shownUnit(choices, 'centre_distance', { text: '5', unit: '', origin: null })).toBe('in')
    expect(shownUnit(choices, 'centre_distance', { text: '5', unit: 'mm', origin: null })).toBe('mm')
  })

  it('sends no more of a text than the server needs to refuse it, and leaves the form alone', () => {
    const form = blankForm()
    sheavesOf(form.survey).quantities.centre_distance.text = '7'.repeat(1_000_000)
    expect(sheavesOf(trimmed(form).survey).quantities.centre_distance.text.length).toBe(120)
    expect(sheavesOf(form.survey).quantities.centre_distance.text!.length).toBe(1_000_000)
    expect(trimmed({ note: 'n'.repeat(500) }).note.length).toBe(500)
  })
})

describe('words', () => {
  it('says the word the person chose', () => {
    expect(say('Fit a larger sheave. Sheaves wear.')).toBe('Fit a larger sheave. Sheaves wear.')
    settings.value.word = 'pulley'
    expect(say('Fit a larger sheave. Sheaves wear.')).toBe('Fit a larger pulley. Pulleys wear.')
  })

  it('says times as a person would', () => {
    const before = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString()
    expect([0, 1, 12, 91].map((d) => ago(before(d)))).toEqual(['today', 'yesterday', '12 days ago', '3 months ago'])
    expect([-3, -1, 0, 1, 9].map(dueText)).toEqual(['3 days late', '1 day late', 'today', 'tomorrow', 'in 9 days'])
  })
})
