import { INSPECT_ASKS } from '../asks'
import type { StationFace } from '../station'
import InspectBoard from './InspectBoard.vue'
import InspectPanel from './InspectPanel.vue'
import { provideWear, useWear } from './useWear'
import { provideRound, useRound } from './useRound'
import { provideInspect, useInspect } from './useInspect'

export const inspectStation: StationFace = {
  key: 'inspect',
  title: 'Inspect',
  asks: INSPECT_ASKS,
  topics: [],
  panel: InspectPanel,
  board: InspectBoard,
  strip: () => false,
  tall: (ask) => ask === 'wear' || ask === 'round',
  setup({ drive, choices }) {
    provideInspect(useInspect(drive))
    provideWear(useWear(drive, choices))
    provideRound(useRound(drive))
    return undefined
  },
}
