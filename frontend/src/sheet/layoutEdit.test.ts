// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest'

import {
  addBelt,
  addKeeper,
  addWheel,
  blankLayout,
  completed,
  putDown,
  removeLastBelt,
  removeWheel,
  roots,
  shaftOf,
  shiftWheel,
} from './layoutEdit'
import { completedSurvey } from './form'

const one = () => [completedSurvey('v-belt', { stages: [] }).stages[0]!]
const two = (layout = three()) => addBelt({ layout, stages: one() })
const three = () => ['driver', 'idler', 'driven'].reduce((path, role) => addWheel(path, role, 1, role), blankLayout())

describe('changing a layout', () => {
  it('asks three tapes of each further wheel, from shafts that differ', () => {
    const path = addWheel(two().layout, 'driven', 2, 'mill')
    expect(path.wheels!.map((w) => w.belt)).toEqual([1, 1, 1, 2, 2])
    expect(shaftOf(path, 4)).toBe(3)
    expect(roots(path)).toEqual([1, 2, 3, 5])
    expect(path.tapes!.filter((t) => t.b === 5).map((t) => t.a)).toEqual([1, 2, 3])
  })

  it('keeps every number pointing at its wheel when one goes or moves', () => {
    const path = two().layout
    const moved = shiftWheel(path, 3, -1)
    expect(moved.wheels!.map((w) => w.name)).toEqual(['driver', 'driven', 'idler', 'driven, belt 2'])
    expect(moved.wheels![3]!.shaft_of).toBe(2)
    const without = removeWheel(moved, 3)
    expect(without.wheels![2]!.shaft_of).toBe(2)
    expect(without.tapes!.every((t) => t.a <= 3 && t.b <= 3)).toBe(true)
    expect(removeWheel(without, 2).wheels![1]!.shaft_of).toBe(0)
  })

  it('takes the last belt out with its wheels', () => {
    const before = two()
    const path = removeLastBelt({ ...before, layout: addWheel(before.layout, 'driven', 2, 'mill') })
    expect(path.layout.wheels!.map((w) => w.name)).toEqual(['driver', 'idler', 'driven'])
    expect(path.stages).toHaveLength(1)
  })

  it('puts a thing down where the hand has it, sketched and not measured', () => {
    const path = putDown(addKeeper(three(), null), { kind: 'keeper', index: 0, x_m: 0.254, y_m: -0.127 })
    expect(path.keepers![0]!.at!.x).toEqual({ text: '10.00', unit: 'in', origin: 'assumed' })
    expect(path.keepers![0]!.at!.y!.text).toBe('-5.00')
  })

  it('completes a path kept before there was more to say', () => {
    const old = completed({ wheels: [{ name: 'a', role: 'idler', takes_up: true }] } as never)
    expect(old.wheels![0]!.take_up!.how).toBe('line')
    expect(completed({ wheels: [{ name: 'a', take_up: { how: '' } }] } as never).wheels![0]).not.toHaveProperty(
      'take_up',
    )
    expect(old.keepers).toEqual([])
  })
})
