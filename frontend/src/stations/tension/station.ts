import type { StationFace } from '../station'
import TensionPanel from './TensionPanel.vue'

export const tensionStation: StationFace = {
  key: 'tension',
  title: 'Tension',
  asks: [''],
  topics: ['tension', 'set'],
  panel: TensionPanel,
  strip: () => true,
}
