import { type Component, defineAsyncComponent } from 'vue'

/** What a kind of drive has of its own in the browser, by what it runs on. One that is not here is surveyed field by field. */
interface Face {
  /** Its whole survey, drawing and all; null: the sheet's own drawing beside the questions of Survey. */
  survey: Component | null
  /** What is asked of it as one stage on many wheels; null where it is not surveyed so. */
  loop: Component | null
  /** How a wheel of it is measured there: over its rim, or by its teeth; and what its own face is called, where there is another. */
  wheels: 'rim' | 'teeth'
  face: string
}

const FACES: Record<string, Face> = {
  sheaves: {
    survey: null,
    loop: defineAsyncComponent(() => import('./sheaves/SheavesLoop.vue')),
    wheels: 'rim',
    face: 'grooved',
  },
  teeth: {
    survey: defineAsyncComponent(() => import('./teeth/ToothedSurvey.vue')),
    loop: defineAsyncComponent(() => import('./teeth/TeethLoop.vue')),
    wheels: 'teeth',
    face: 'toothed',
  },
  pulleys: {
    survey: defineAsyncComponent(() => import('./pulleys/FlatSurvey.vue')),
    loop: defineAsyncComponent(() => import('./pulleys/PulleysLoop.vue')),
    wheels: 'rim',
    face: '',
  },
}
const PLAIN: Face = {
  survey: defineAsyncComponent(() => import('./PlainSurvey.vue')),
  loop: null,
  wheels: 'rim',
  face: '',
}

export const faceOf = (kind: { part: string }): Face => FACES[kind.part] ?? PLAIN
