import type { components } from '../api/schema'

export type Arrow = components['schemas']['Arrow']

/** An arrow from tail to head in a picture of a size, its head a tenth of the picture or half of the arrow, whichever is less. */
export function arrowHead(a: Arrow, width: number, height: number): string {
  const [x1, y1, x2, y2] = [a.x1 * width, a.y1 * height, a.x2 * width, a.y2 * height]
  const long = Math.hypot(x2 - x1, y2 - y1)
  const barb = Math.min(Math.max(width, height) / 18, long / 2)
  const at = Math.atan2(y2 - y1, x2 - x1)
  const side = (turn: number) =>
    `${(x2 - barb * Math.cos(at + turn)).toFixed(1)} ${(y2 - barb * Math.sin(at + turn)).toFixed(1)}`
  return `M${x1.toFixed(1)} ${y1.toFixed(1)}L${x2.toFixed(1)} ${y2.toFixed(1)}M${side(0.5)}L${x2.toFixed(1)} ${y2.toFixed(1)}L${side(-0.5)}`
}

/** From a point of the screen's box (shares of it) to the picture before it is turned clockwise by so many degrees. */
export function unturned(x: number, y: number, turned: number): [number, number] {
  if (turned === 90) return [y, 1 - x]
  if (turned === 180) return [1 - x, 1 - y]
  if (turned === 270) return [1 - y, x]
  return [x, y]
}
