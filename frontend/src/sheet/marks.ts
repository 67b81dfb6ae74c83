import type { Origin } from '../api/client'

/** The drawn mark of each origin, in a 14 by 14 box. */
export const SHAPES: Record<Origin, string> = {
  measured: 'M1 4h12v6H1z M4 4v3 M7 4v4 M10 4v3',
  nameplate: 'M1 3h12v8H1z M3 5h.01 M11 5h.01 M4 8h6',
  chosen: 'M2 7l3.5 4L12 3',
  standard: 'M3 1h8v12H3z M5 4h4 M5 7h4 M5 10h2',
  'rule of thumb': 'M4 13V6c0-2 1-5 3-5s2 2 1.5 4H12v5c0 2-1 3-3 3z',
  assumed: 'M4 4c0-4 7-4 6 0-.5 2-3 2-3 5 M7 12h.01',
  computed: 'M2 5h10 M2 9h10',
}
