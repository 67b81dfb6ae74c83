import type { Held } from './layoutEdit'
import { PACE } from './usePanZoom'

/** A drive as it stands on the screen, in pixels, on two wheels or many: what every drawing of it is made of. */

export interface Line {
  x1: number
  y1: number
  x2: number
  y2: number
}

export interface SceneWheel {
  key: string
  /** driver, driven or idler; shared where it sits on another's shaft. */
  tone: string
  cx: number
  cy: number
  r: number
  /** A line inside the rim, and where the belt's line runs round it; 0 for none. */
  rail: number
  datum: number
  hub: number
  bore: number
  turn: { arc: string; head: string } | null
  back: boolean
  period: number
  /** Seen from the side, as behind a quarter turn: how it lies. */
  edge?: string
  hot?: boolean
  /** What a hand may move, and what it is called then. */
  thing?: Held
  called?: string
  pick?: number
}

export interface SceneBelt {
  key: string
  line: string
  cord: string
  thickness: number
  back: boolean
  period: number
}

export interface SceneKeeper {
  key: string
  tone: string
  at: { x: number; y: number }
  foot: { x: number; y: number }
  turn: number
  thing?: Held
  called?: string
}

export interface Dimension extends Line {
  key: string
  from: Line[]
  hot: boolean
}

export interface SceneText {
  key: string
  x: number
  y: number
  width: number
  height: number
  lines: { text: string; x: number; y: number; size: number; class: string; mark?: string; markX?: number }[]
  leader?: Line | null
}

export interface Scene {
  /** Spacing of the grid and a point that it goes through. */
  grid: { step: number; x: number; y: number }
  wheels: SceneWheel[]
  belts: SceneBelt[]
  /** Beside the strands that pull. */
  pulling: Line[]
  /** A strand pushed by a gauge, and the force on it. */
  pushed: { path: string; force: Line } | null
  /** The pulls on the shafts. */
  arrows: (Line & { key: string })[]
  dimensions: Dimension[]
  tracks: { key: string; line: string; stops: { key: string; x: number; y: number }[] }[]
  carriage: Line | null
  tape: Line | null
  keepers: SceneKeeper[]
  ghost: { x: number; y: number; r: number } | null
  marks: { x: number; y: number; weight: string; words: string }[]
  texts: SceneText[]
}

/** What of a scene a drive on two wheels, or an empty one, does not have. */
export const PLAIN = {
  pulling: [],
  pushed: null,
  arrows: [],
  dimensions: [],
  tracks: [],
  carriage: null,
  tape: null,
  keepers: [],
  ghost: null,
  marks: [],
} satisfies Partial<Scene>

export const PUSH_DRAWN = 4

/** The hub and the bore of a wheel of that radius. */
export function hubOf(r: number): { hub: number; bore: number } {
  const hub = Math.max(5, Math.min(r * 0.3, 26))
  return { hub, bore: hub * 0.36 }
}

/** How long a turn takes in the running view, when the belt goes at `pace` (px/s). */
export const turnTime = (radius: number, pace = PACE) => (2 * Math.PI * radius) / pace

/** A line `off` to one side of another, with its witness lines. */
export function beside(key: string, line: Line, nx: number, ny: number, off: number, hot = false): Dimension {
  const { x1, y1, x2, y2 } = line
  const witness = (x: number, y: number): Line => ({ x1: x, y1: y, x2: x + nx * (off + 6), y2: y + ny * (off + 6) })
  return {
    key,
    hot,
    x1: x1 + nx * off,
    y1: y1 + ny * off,
    x2: x2 + nx * off,
    y2: y2 + ny * off,
    from: [witness(x1, y1), witness(x2, y2)],
  }
}

/** A strand pushed `deep` at its middle, against its outward normal, and the force from `stem` outside. */
export function pushedAt(span: Line & { nx: number; ny: number }, deep: number, stem: number, thickness: number) {
  const mx = (span.x1 + span.x2) / 2
  const my = (span.y1 + span.y2) / 2
  const px = mx - span.nx * deep
  const py = my - span.ny * deep
  const tail = { x: mx + span.nx * stem, y: my + span.ny * stem }
  return {
    span,
    mx,
    my,
    px,
    py,
    tail,
    path: `M ${span.x1} ${span.y1} L ${px} ${py} L ${span.x2} ${span.y2}`,
    force: {
      x1: tail.x,
      y1: tail.y,
      x2: mx + span.nx * (thickness / 2 + 2),
      y2: my + span.ny * (thickness / 2 + 2),
    },
  }
}
