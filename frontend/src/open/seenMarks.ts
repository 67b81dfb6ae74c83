import type { components } from '../api/schema'

export type Placed = Pick<components['schemas']['FindingOut'], 'what' | 'weight' | 'place'>
interface Point {
  x: number
  y: number
}

/** Open findings that have a place in the drawing, those of one place under one mark. */
export function marksOf(findings: readonly Placed[], at: (place: string) => Point | null) {
  const byPlace = new Map<string, Placed[]>()
  for (const f of findings) if (f.place) byPlace.set(f.place, [...(byPlace.get(f.place) ?? []), f])
  return [...byPlace].flatMap(([place, found]) => {
    const point = at(place)
    if (!point) return []
    const weight = found.some((f) => f.weight === 'stop') ? 'stop' : 'watch'
    return [{ ...point, weight, words: found.map((f) => f.what).join('; ') }]
  })
}
