/** Each family's own shape on the plot and in the list, so that colour is not needed to tell them apart; 14 units across, middle at 0. */
export const FAMILY_SHAPES: Record<string, string> = {
  'v-belt': 'M -6 -5 H 6 L 3 5 H -3 Z',
  synchronous: 'M -6 4 V -4 H -3 V 0 H 0 V -4 H 3 V 0 H 6 V 4 Z',
  'roller chain': 'M -6 0 A 3.2 3.2 0 1 1 0 0 A 3.2 3.2 0 1 1 6 0 A 3.2 3.2 0 1 1 0 0 A 3.2 3.2 0 1 1 -6 0 Z',
  'flat belt': 'M -6.5 -2 H 6.5 V 2 H -6.5 Z',
  'double-V': 'M -6 0 L -3 -5 H 3 L 6 0 L 3 5 H -3 Z',
  'joined V-belt': 'M -7 -5 H 7 L 5 3 H 2 L 0 -2 L -2 3 H -5 Z',
  'V-flat': 'M -6 -6 H 6 L 3 2 H -3 Z M -7 5 H 7',
  ribbed: 'M -7 -4 H 7 V 0 L 5 4 L 3 0 L 1 4 L -1 0 L -3 4 L -5 0 L -7 4 Z',
  'link belt': 'M -6 -4 L 0 -1 L 6 -4 V 1 L 0 4 L -6 1 Z',
}
export const FAMILY_WORDS: Record<string, string> = {
  'v-belt': 'V-belt',
  synchronous: 'toothed belt',
  'roller chain': 'roller chain',
  'flat belt': 'flat belt',
  'joined V-belt': 'joined V-belt',
  'V-flat': 'V-belt on a flat wheel',
  ribbed: 'ribbed belt',
  'double-V': 'double-V',
  'link belt': 'link belt',
}
