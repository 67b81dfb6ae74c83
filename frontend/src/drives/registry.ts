import { type Component, defineAsyncComponent } from 'vue'

/** What a kind of drive has of its own in the browser: the survey of what it runs on. One that is not here is surveyed field by field. */
interface Face {
  /** Its whole survey, drawing and all; null: the sheet's own drawing beside the questions of Survey. */
  survey: Component | null
}

const FACES: Record<string, Face> = {
  sheaves: { survey: null },
  teeth: { survey: defineAsyncComponent(() => import('./teeth/ToothedSurvey.vue')) },
  pulleys: { survey: defineAsyncComponent(() => import('./pulleys/FlatSurvey.vue')) },
}
const PLAIN: Face = { survey: defineAsyncComponent(() => import('./PlainSurvey.vue')) }

export const faceOf = (kind: { part: string }): Face => FACES[kind.part] ?? PLAIN
