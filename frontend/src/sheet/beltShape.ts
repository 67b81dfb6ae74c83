/** Outlines for the drawings, in the drawing's own length unit, y down. Shapes only: every size comes from the server. */

export interface Outline {
  width: number
  height: number
  angle: number
}

export function bottomWidth({ width, height, angle }: Outline): number {
  return Math.max(width * 0.08, width - 2 * height * Math.tan(angle / 2))
}

/** A belt in section with its back's middle at (cx, top). */
export function beltPath(outline: Outline, construction: string, cx: number, top: number, ribs = 1): string {
  const { width, height } = outline
  const low = bottomWidth(outline)
  const at = (points: [number, number][]) => `M ${points.map(([x, y]) => `${x} ${y}`).join(' L ')} Z`
  if (construction === 'hexagonal') {
    const waist = width / 2
    const end = Math.max(width * 0.3, width - height * Math.tan(outline.angle / 2)) / 2
    return at([
      [cx - end, top],
      [cx + end, top],
      [cx + waist, top + height / 2],
      [cx + end, top + height],
      [cx - end, top + height],
      [cx - waist, top + height / 2],
    ])
  }
  if (ribs > 1) {
    const pitch = width * 1.12
    const back = height * 0.22
    const left = cx - (pitch * (ribs - 1)) / 2
    const points: [number, number][] = [
      [left - width / 2, top],
      [left + pitch * (ribs - 1) + width / 2, top],
    ]
    for (let i = ribs - 1; i >= 0; i--) {
      const x = left + pitch * i
      points.push(
        [x + width / 2, top + back],
        [x + low / 2, top + height],
        [x - low / 2, top + height],
        [x - width / 2, top + back],
      )
    }
    return at(points)
  }
  return at([
    [cx - width / 2, top],
    [cx + width / 2, top],
    [cx + low / 2, top + height],
    [cx - low / 2, top + height],
  ])
}

/** A rim with one groove cut into it, its lips level at y = 0, from -half to +half. */
export function rimPath(groove: Outline, cx: number, rim: number, half: number, deep: number): string {
  const low = bottomWidth(groove)
  return (
    `M ${cx - half} ${rim} L ${cx - groove.width / 2} ${rim} L ${cx - low / 2} ${rim + groove.height} ` +
    `L ${cx + low / 2} ${rim + groove.height} L ${cx + groove.width / 2} ${rim} L ${cx + half} ${rim} ` +
    `L ${cx + half} ${rim + deep} L ${cx - half} ${rim + deep} Z`
  )
}
