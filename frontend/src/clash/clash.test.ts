// @vitest-environment happy-dom
import { expect, test } from 'vitest'

import { blankForm, sheavesOf, type Survey } from '../sheet/form'
import { clashes, merged } from './clash'

function survey(centre: string, hours: string, belt: string): Survey {
  const made = blankForm().survey
  sheavesOf(made).quantities.centre_distance = { text: centre, unit: 'in', origin: null }
  made.machine.hours_per_day = { text: hours, unit: 'h', origin: null }
  sheavesOf(made).choices.belt = belt
  return made
}

test('a clash names both values, and keeping mine puts back only what is chosen', () => {
  const was = survey('30', '8', 'B81')
  const mine = survey('31', '8', 'B81')
  const theirs = survey('32', '16', 'B82')
  const found = clashes(mine, theirs, was)
  expect(found.map((c) => [c.label, c.mine, c.theirs, c.changedHere])).toEqual([
    ['hours per day', '8 h', '16 h', false],
    ['centre distance', '31 in', '32 in', true],
    ['belt', 'B81', 'B82', false],
  ])
  const kept = merged(mine, theirs, new Set([found[1]!.path]))
  expect(sheavesOf(kept).quantities.centre_distance.text).toBe('31')
  expect(kept.machine.hours_per_day.text).toBe('16')
  expect(sheavesOf(kept).choices.belt).toBe('B82')
  expect(sheavesOf(theirs).quantities.centre_distance.text).toBe('32')
})

test('wheels of two lists as long as each other are named one by one, other lists as a whole', () => {
  const [mine, theirs] = [survey('30', '8', ''), survey('30', '8', '')]
  const wheels = (...names: string[]) => names.map((name) => ({ name })) as Survey['layout']['wheels']
  mine.layout.wheels = wheels('engine', 'reel')
  theirs.layout.wheels = wheels('engine', 'drum')
  const found = clashes(mine, theirs, theirs)
  expect(found.map((c) => [c.label, c.mine, c.theirs])).toEqual([['wheels, 2, name', 'reel', 'drum']])
  expect(merged(mine, theirs, new Set([found[0]!.path])).layout.wheels.map((w) => w.name)).toEqual(['engine', 'reel'])
  theirs.layout.wheels = wheels('engine', 'drum', 'idler')
  expect(clashes(mine, theirs, theirs).map((c) => [c.label, c.mine, c.theirs])).toEqual([
    ['wheels', '2: engine, reel', '3: engine, drum, idler'],
  ])
})

test('nothing differs when only an empty field waits with another unit', () => {
  const [mine, theirs] = [survey('', '8', ''), survey('', '8', '')]
  sheavesOf(mine).quantities.centre_distance.unit = 'mm'
  expect(clashes(mine, theirs, theirs)).toEqual([])
})
