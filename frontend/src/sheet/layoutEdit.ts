import type { Entry, Layout } from '../api/client'
import { settings } from '../settings'
import {
  blank,
  blankEntry as entry,
  completedFitted,
  filled,
  type LayoutForm,
  type Stage,
  type WheelEntry,
  type Whole,
} from './form'

/** Changing a layout of wheels: adding, taking out and moving keep every number that points at a wheel right. */

export type KeeperEntry = NonNullable<LayoutForm['keepers']>[number]
type TakeUpEntry = NonNullable<WheelEntry['take_up']>
export type PointEntry = NonNullable<KeeperEntry['at']>

export const blankPoint = () => blank('point') as PointEntry
/** How a wheel takes up, with everything there. */
export const takeUpOf = (w: WheelEntry) => filled(blank('take_up') as Whole<TakeUpEntry>, w.take_up)

export function blankWheel(role: string, name: string, belt: number): WheelEntry {
  const idler = role === 'idler'
  const wheel: WheelEntry = { ...blank('wheel') } as WheelEntry
  delete wheel.take_up
  return {
    ...wheel,
    name,
    role,
    belt,
    contact: idler ? 'back' : 'inside',
    face: idler ? 'flat' : 'grooved',
  } as WheelEntry
}

export const blankLayout = () => blank('layout') as LayoutForm

/** A path kept before a field existed, with everything there; of a wheel that does not take up, no more than that. */
export function completed(path: LayoutForm | undefined): LayoutForm {
  const whole = { ...blankLayout(), ...path }
  whole.wheels = (path?.wheels ?? []).map((w) => {
    const how = w.take_up?.how || (w.takes_up ? 'line' : '')
    const fresh = { ...blankWheel(w.role ?? 'driven', '', 1), ...w, takes_up: false }
    delete fresh.take_up
    return how ? { ...fresh, take_up: { ...takeUpOf(w), how } } : fresh
  })
  return whole
}

export const wheelsOf = (path: LayoutForm) => path.wheels ?? []
/** The wheel (from 1) whose shaft wheel `k` sits on: itself unless it shares another's. */
export function shaftOf(path: LayoutForm, k: number): number {
  const seen = new Set<number>()
  let at = k
  for (;;) {
    const up = wheelsOf(path)[at - 1]?.shaft_of ?? 0
    if (!up || seen.has(up)) return at
    seen.add(at)
    at = up
  }
}
/** The wheels (from 1) that have a shaft of their own. */
export const roots = (path: LayoutForm) =>
  wheelsOf(path).flatMap((_, i) => (shaftOf(path, i + 1) === i + 1 ? [i + 1] : []))

export function addWheel(path: LayoutForm, role: string, belt: number, name: string): LayoutForm {
  const wheels = [...wheelsOf(path), blankWheel(role, name, belt)]
  // Three tapes to each further wheel, from those before it, which a person reaches best: the third says on which side it lies.
  const from = roots(path).slice(-3)
  const tapes = [...(path.tapes ?? []), ...from.map((a) => ({ a, b: wheels.length, distance: entry(), held: true }))]
  return { ...path, wheels, tapes }
}

/** Layout and stages belong together: belt `n` runs on stage `n`. */
export interface Belts {
  layout: LayoutForm
  stages: Stage[]
}

/** One more belt, driven from the shaft of the last driven wheel (or the driver's own). */
export function addBelt({ layout, stages }: Belts): Belts {
  const number = stages.length + 1
  const driven = wheelsOf(layout).findLastIndex((w) => w.role === 'driven') + 1
  const from = driven || wheelsOf(layout).findIndex((w) => w.role === 'driver') + 1
  const shared = wheelsOf(layout)[from - 1]
  const wheel = { ...blankWheel('driver', `${shared?.name ?? 'shaft'}, belt ${number}`, number), shaft_of: from }
  const stage = { ...(blank('stage') as unknown as Stage), fitted: completedFitted(stages[0]!.fitted.family) }
  return { layout: { ...layout, wheels: [...wheelsOf(layout), wheel] }, stages: [...stages, stage] }
}

/** The last belt goes, with its wheels. */
export function removeLastBelt({ layout, stages }: Belts): Belts {
  const number = stages.length
  let found = layout
  for (let k = wheelsOf(found).length; k >= 1; k--) {
    if (wheelsOf(found)[k - 1]?.belt === number) found = removeWheel(found, k)
  }
  const keepers = (found.keepers ?? []).filter((k) => k.belt !== number)
  return { layout: { ...found, keepers }, stages: stages.slice(0, -1) }
}

export function removeWheel(path: LayoutForm, k: number): LayoutForm {
  const left = { ...path, wheels: wheelsOf(path).filter((_, i) => i !== k - 1) }
  return renumbered(left, (n) => (n === k ? 0 : n > k ? n - 1 : n))
}

/** Wheel `k` one earlier (-1) or later (+1) in the order. */
export function shiftWheel(path: LayoutForm, k: number, by: number): LayoutForm {
  const to = k + by
  const wheels = [...wheelsOf(path)]
  const [one, other] = [wheels[k - 1], wheels[to - 1]]
  if (!one || !other) return path
  wheels[k - 1] = other
  wheels[to - 1] = one
  return renumbered({ ...path, wheels }, (n) => (n === k ? to : n === to ? k : n))
}

/** Everything that points at a wheel by its number, after the numbers changed; 0 is a wheel that is gone. */
function renumbered(path: LayoutForm, at: (n: number) => number): LayoutForm {
  const point = (p: PointEntry | undefined): PointEntry => ({
    ...(p ?? blankPoint()),
    from_a: at(p?.from_a ?? 0),
    from_b: at(p?.from_b ?? 0),
  })
  return {
    ...path,
    wheels: wheelsOf(path).map((w) => ({
      ...w,
      shaft_of: at(w.shaft_of ?? 0),
      ...(w.take_up ? { take_up: { ...takeUpOf(w), pivot: point(w.take_up.pivot) } } : {}),
    })),
    tapes: (path.tapes ?? []).map((t) => ({ ...t, a: at(t.a), b: at(t.b) })).filter((t) => t.a && t.b),
    keepers: (path.keepers ?? []).map((k) => ({ ...k, at: point(k.at) })),
    carriage: { ...path.carriage, run: at(path.carriage?.run ?? 0) },
  }
}

/** Something in the drawing that a hand can move. */
export interface Held {
  kind: 'wheel' | 'keeper' | 'pivot'
  index: number
  x_m: number
  y_m: number
}

/** A place as it would be typed, sketched rather than measured. */
function coordinate(metres: number): Entry {
  const inches = settings.value.system === 'us'
  const value = inches ? metres / 0.0254 : metres * 1000
  return { text: value.toFixed(inches ? 2 : 0), unit: inches ? 'in' : 'mm', origin: 'assumed' }
}

/** The path with one thing where the hand put it. */
export function putDown(path: LayoutForm, held: Held): LayoutForm {
  const at = { x: coordinate(held.x_m), y: coordinate(held.y_m) }
  if (held.kind === 'keeper')
    return {
      ...path,
      keepers: (path.keepers ?? []).map((k, i) =>
        i === held.index ? { ...k, at: { ...blankPoint(), ...k.at, ...at } } : k,
      ),
    }
  const wheels = wheelsOf(path).map((w, i) => {
    if (i !== held.index) return w
    if (held.kind === 'wheel') return { ...w, ...at }
    return { ...w, take_up: { ...takeUpOf(w), pivot: { ...takeUpOf(w).pivot, ...at } } }
  })
  return { ...path, wheels }
}

/** Placing by hand begins from what is drawn; wheels not drawn yet stand in a row beside it. */
export function toDragging(path: LayoutForm, layout: Layout | null): LayoutForm {
  const right = Math.max(0, ...(layout?.wheels ?? []).map((w) => w.x_m + w.rim_radius_m))
  const wheels = wheelsOf(path).map((w, i) => {
    const drawn = layout?.wheels[i]
    const at = drawn ? { x: drawn.x_m, y: drawn.y_m } : { x: right + 0.3 * (i + (right ? 1 : 0)), y: 0 }
    const kept = w.x?.text && w.y?.text && !drawn
    return kept ? w : { ...w, x: coordinate(at.x), y: coordinate(at.y) }
  })
  return { ...path, placed_by: 'drag', wheels }
}

/** A keeper, drawn beside the run that goes slack, where one is needed most. */
export function addKeeper(path: LayoutForm, layout: Layout | null): LayoutForm {
  const number = (path.keepers ?? []).length + 1
  const run = layout?.belts[0]?.runs.find((r) => r.pull === 'slack') ?? layout?.belts[0]?.runs[0]
  const turns = layout?.wheels[layout.belts[0]?.order[0] ?? 0]?.turns ?? 1
  const at = blankPoint()
  if (run) {
    const length = Math.hypot(run.x2_m - run.x1_m, run.y2_m - run.y1_m) || 1
    // Out of the loop, where the belt's back is: to the right of its travel when it goes round counter-clockwise.
    const off = (turns * 0.012) / length
    at.x = coordinate((run.x1_m + run.x2_m) / 2 + (run.y2_m - run.y1_m) * off)
    at.y = coordinate((run.y1_m + run.y2_m) / 2 - (run.x2_m - run.x1_m) * off)
  }
  const keeper = { ...blank('keeper'), name: `keeper ${number}`, at }
  return { ...path, keepers: [...(path.keepers ?? []), keeper] }
}

/** The keepers (from 0) that a hand may move: those that no tape holds. */
export const looseKeepers = (path: LayoutForm) =>
  (path.keepers ?? []).flatMap((k, i) => (k.at?.tape_a?.text && k.at.tape_b?.text ? [] : [i]))
