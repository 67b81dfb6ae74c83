import { faceOf } from '../../drives/registry'
import type { StationFace } from '../station'
import LogStation from './LogStation.vue'

export const logStation: StationFace = {
  key: 'log',
  title: 'Log',
  asks: [''],
  topics: [],
  panel: LogStation,
  strip: () => true,
  bare: (drive) => faceOf(drive.kind).survey !== null,
}
