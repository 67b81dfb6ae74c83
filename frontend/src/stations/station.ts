import type { Component, Ref } from 'vue'

import type { Choices, DriveOut, Sheet } from '../api/client'
import type { SheetState } from '../sheet/useSheet'

/** What a station is given when a drive's sheet opens. */
export interface SheetContext {
  drive: () => DriveOut
  choices: () => Choices
  state: SheetState
  /** The question asked at that station, while it is the one shown. */
  asked: (station: string) => string | null
  goTo: (path: string) => void
  /** To another address in this one's place: Back does not return here. */
  replaceBy: (path: string) => void
}

/** What a station shares between its panel and its board, if it needs anything; `tried`: a sheet that is drawn in the drive's place. */
export interface Desk {
  tried?: Ref<Sheet | null>
}

/**
 * One station along the rule. `asks`: its questions, the first at the station's own address. `topics`: the verdicts whose
 * tone it wears; `left`: the tones its last readings left, newest of each stage. `panel` and `board` are given drive, choices and ask; a board draws what its questions are about, and the
 * drive (its slot) for the rest. `strip`: whether the key figures stand under it. `bare`: no drawing where nothing of the
 * drive belongs beside it. `tall`: whether on a phone its board takes the height it wants and scrolls along.
 */
export interface StationFace {
  key: string
  title: string
  asks: readonly string[]
  topics: readonly string[]
  left?: (drive: DriveOut) => string[]
  panel: Component
  board?: Component
  strip: (ask: string) => boolean
  bare?: (drive: DriveOut) => boolean
  tall?: (ask: string) => boolean
  setup?: (context: SheetContext) => Desk | undefined
}
