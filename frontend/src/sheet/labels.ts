/** Placing labels so that none lies on another: pure geometry in screen pixels. */

export interface Box {
  x: number
  y: number
  width: number
  height: number
}

/** Something a label should not cover; its `owner` may. */
export interface Obstacle extends Box {
  owner?: string
}

export interface Label {
  key: string
  width: number
  height: number
  /** Centres to try, best first. */
  places: { x: number; y: number }[]
}

export interface Placed extends Box {
  key: string
}

const GAP = 3

export function overlap(a: Box, b: Box): number {
  const w = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x) + GAP
  const h = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y) + GAP
  return w > 0 && h > 0 ? w * h : 0
}

function inside(box: Box, bounds: Box): Box {
  return {
    ...box,
    x: Math.min(Math.max(box.x, bounds.x), Math.max(bounds.x, bounds.x + bounds.width - box.width)),
    y: Math.min(Math.max(box.y, bounds.y), Math.max(bounds.y, bounds.y + bounds.height - box.height)),
  }
}

/** A ring of places further and further out round a point, for when none of the wished ones is free. */
function rings(centre: { x: number; y: number }): { x: number; y: number }[] {
  const found = []
  for (let radius = 14; radius <= 210; radius += 14) {
    for (let step = 0; step < 12; step++) {
      const angle = (step * Math.PI) / 6
      found.push({ x: centre.x + radius * Math.cos(angle), y: centre.y + radius * 0.7 * Math.sin(angle) })
    }
  }
  return found
}

/**
 * Place labels in the order given (most important first) inside `bounds`, clear of each other and of
 * `obstacles`. A label takes its first free place; failing all, the one that covers least.
 */
export function placeLabels(labels: Label[], obstacles: Obstacle[], bounds: Box): Placed[] {
  const placed: Placed[] = []
  for (const label of labels) {
    const [first] = label.places
    if (!first) continue
    let best: { box: Box; cost: number } | null = null
    for (const place of [...label.places, ...rings(first)]) {
      const wished = {
        x: place.x - label.width / 2,
        y: place.y - label.height / 2,
        width: label.width,
        height: label.height,
      }
      const box = inside(wished, bounds)
      const onLabels = placed.reduce((sum, other) => sum + overlap(box, other), 0)
      const onThings = obstacles.reduce((sum, other) => sum + (other.owner === label.key ? 0 : overlap(box, other)), 0)
      const cost = onLabels * 1000 + onThings
      if (!best || cost < best.cost) best = { box, cost }
      if (cost === 0) break
    }
    if (best) placed.push({ key: label.key, ...best.box })
  }
  return placed
}

/** Width of a text in the condensed face, near enough for placing it: capitals are wide, points and spaces thin. */
export function textWidth(text: string, size: number): number {
  let ems = 0
  for (const letter of text) ems += /[A-Z]/.test(letter) ? 0.5 : /[ .,/ijl1'|]/.test(letter) ? 0.26 : 0.42
  return ems * size + 4
}
