import { provide } from 'vue'

import { SIZE_ASKS, SIZING, type SizeAsk } from '../asks'
import type { StationFace } from '../station'
import SizeBoard from './SizeBoard.vue'
import SizePanel from './SizePanel.vue'
import { useSizeAsk } from './useSizeAsk'
import { sizeDeskKey, useSizeDesk } from './useSizeDesk'

export const sizeStation: StationFace = {
  key: 'size',
  title: 'Size',
  asks: SIZE_ASKS,
  topics: ['rating'],
  panel: SizePanel,
  board: SizeBoard,
  strip: (ask) => !SIZING.includes(ask),
  setup({ drive, state, asked }) {
    provide(
      sizeDeskKey,
      useSizeDesk(useSizeAsk(drive().id), state.form, () => asked('size') as SizeAsk | null),
    )
    return undefined
  },
}
