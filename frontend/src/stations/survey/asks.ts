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
