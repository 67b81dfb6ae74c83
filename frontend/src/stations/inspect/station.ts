import { INSPECT_ASKS } from '../asks'
import type { StationFace } from '../station'
import InspectBoard from './InspectBoard.vue'
import InspectPanel from './InspectPanel.vue'
import { provideInspect, useInspect } from './useInspect'

export const inspectStation: StationFace = {
  key: 'inspect',
  title: 'Inspect',
  asks: INSPECT_ASKS,
  topics: [],
  panel: InspectPanel,
  board: InspectBoard,
  strip: () => false,
  setup({ drive }) {
    provideInspect(useInspect(drive))
    return undefined
  },
}
