import { provide } from 'vue'

import { SPEED_ASKS, type SpeedAsk } from '../asks'
import type { StationFace } from '../station'
import SpeedBoard from './SpeedBoard.vue'
import SpeedPanel from './SpeedPanel.vue'
import { speedDeskKey, useSpeedDesk } from './useSpeedDesk'

export const speedStation: StationFace = {
  key: 'speed',
  title: 'Speed',
  asks: SPEED_ASKS,
  topics: ['speed', 'design'],
  panel: SpeedPanel,
  board: SpeedBoard,
  strip: (ask) => ask !== 'cones' && ask !== 'make',
  setup({ drive, state, asked, replaceBy }) {
    const desk = useSpeedDesk(drive, state, () => asked('speed') as SpeedAsk | null)
    provide(speedDeskKey, desk)
    const ask = asked('speed')
    if (ask && !desk.asks.value.includes(ask as SpeedAsk)) replaceBy(`/drives/${drive().id}/speed`)
    return desk
  },
}
