import type { StationFace } from '../station'
import AlignBoard from './AlignBoard.vue'
import AlignPanel from './AlignPanel.vue'
import { provideAlign, useAlign } from './useAlign'

export const alignStation: StationFace = {
  key: 'align',
  title: 'Align',
  asks: [''],
  topics: ['align', 'before'],
  panel: AlignPanel,
  board: AlignBoard,
  strip: () => false,
  setup({ drive, choices, state }) {
    provideAlign(useAlign(state, choices, drive))
    return undefined
  },
}
