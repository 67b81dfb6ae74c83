import { faceOf } from '../drives/registry'
import { alignStation } from './align/station'
import { inspectStation } from './inspect/station'
import { logStation } from './log/station'
import { sizeStation } from './size/station'
import { speedStation } from './speed/station'
import type { StationFace } from './station'
import { surveyStation } from './survey/station'
import { tensionStation } from './tension/station'

/** The stations along the rule, in the order of the work: the only list there is. */
export const STATIONS: readonly StationFace[] = [
  surveyStation,
  speedStation,
  sizeStation,
  tensionStation,
  alignStation,
  inspectStation,
  logStation,
]

export const stationOf = (key: string): StationFace => STATIONS.find((s) => s.key === key) ?? STATIONS[0]!
export { faceOf }
