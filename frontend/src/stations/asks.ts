/** The questions of Survey, in the order in which they come up at the machine. */
export const ASKS = ['drive', 'wheels', 'belt', 'length', 'groove', 'home', 'link', 'counter'] as const
export type Ask = (typeof ASKS)[number]

export const ASK_TITLES: Record<Ask, string> = {
  drive: 'The drive',
  wheels: 'Many wheels',
  belt: 'Which belt?',
  length: 'No belt',
  groove: 'Sits right?',
  home: 'Get home',
  link: 'Link belt',
  counter: 'Counter slip',
}

/** The questions of Size. */
export const SIZE_ASKS = ['stands', 'choose', 'compare', 'why', 'shafts'] as const
export type SizeAsk = (typeof SIZE_ASKS)[number]

export const SIZE_TITLES: Record<SizeAsk, string> = {
  stands: 'As fitted',
  choose: 'Options',
  compare: 'Side by side',
  why: 'Why not?',
  shafts: 'Shafts',
}

/** Those whose candidates take the drive's place on the board. */
export const SIZING: readonly string[] = ['choose', 'compare', 'why']

/** The questions of Speed. */
export const SPEED_ASKS = ['runs', 'means', 'target', 'turns', 'cones', 'feels', 'make', 'trial'] as const
export type SpeedAsk = (typeof SPEED_ASKS)[number]

export const SPEED_TITLES: Record<SpeedAsk, string> = {
  runs: 'As it runs',
  means: 'What it means',
  target: 'Target speed',
  turns: 'Adjustable',
  cones: 'Step cones',
  feels: 'The machine',
  make: 'Make a wheel',
  trial: 'Trial',
}

/** The questions of Inspect. */
export const INSPECT_ASKS = ['wrong', 'wear', 'round', 'photos'] as const
export type InspectAsk = (typeof INSPECT_ASKS)[number]

export const INSPECT_TITLES: Record<InspectAsk, string> = {
  wrong: 'What is wrong?',
  wear: 'How worn?',
  round: 'Round',
  photos: 'Photos',
}
