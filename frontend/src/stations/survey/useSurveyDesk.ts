import { computed, type InjectionKey, ref } from 'vue'

import { useFound } from '../../api/queries'
import type { Step } from '../../sheet/TeachDrawing.vue'
import type { SheetContext } from '../station'
import { useFind } from './useFind'

/** What Survey's panel and its drawings share: the belt that is looked for, link tabs, and the order of the tape. */
export function useSurveyDesk({ drive, choices, state, asked, goTo }: SheetContext) {
  const { data: found } = useFound(() => drive().id)
  const find = useFind(
    drive().id,
    computed(choices),
    computed(() => found.value?.slip?.find),
  )
  const linkTabs = ref<string | null>(null)
  function choose(designation: string): void {
    find.chosen.value = designation
    goTo(`/drives/${drive().id}/survey/counter`)
  }
  /** A belt's own name gives the centres as well as the tape does. */
  const steps = computed<Step[]>(() => {
    const { quantities: q, choices: c } = state.sheaves.value
    const stage = state.first.value
    const tape = [
      { key: 'section', label: 'belt section', done: Boolean(c.section) },
      { key: 'driver_diameter', label: 'driver sheave, across the outside', done: Boolean(q.driver_diameter.text) },
      { key: 'driven_diameter', label: 'driven sheave, across the outside', done: Boolean(q.driven_diameter.text) },
      { key: 'centre_distance', label: 'centres, shaft to shaft', done: Boolean(q.centre_distance.text) },
    ]
    const slide = [
      { key: 'travel_in', label: 'how far the motor slides closer', done: Boolean(stage.travel_in.text) },
      { key: 'travel_out', label: 'and away', done: Boolean(stage.travel_out.text) },
    ]
    return asked('survey') === 'length' ? [...tape, ...slide] : tape
  })
  return { find, linkTabs, choose, steps }
}
export type SurveyDesk = ReturnType<typeof useSurveyDesk>
export const surveyDeskKey: InjectionKey<SurveyDesk> = Symbol('survey desk')
