import type { StationFace } from '../station'
import TensionBoard from './TensionBoard.vue'
import TensionPanel from './TensionPanel.vue'
import { provideTension, useTension } from './useTension'

export const tensionStation: StationFace = {
  key: 'tension',
  title: 'Tension',
  asks: [''],
  topics: ['tension', 'set'],
  left: ({ tensions }) => [...new Map(tensions.toReversed().map((t) => [t.stage, t.tone])).values()],
  panel: TensionPanel,
  board: TensionBoard,
  strip: () => true,
  setup({ drive, choices, state }) {
    provideTension(useTension(state, choices, drive))
    return undefined
  },
}
