import { provide } from 'vue'

import { ASKS } from '../asks'
import type { StationFace } from '../station'
import SurveyBoard from './SurveyBoard.vue'
import SurveyPanel from './SurveyPanel.vue'
import { findKey } from './useFind'
import { surveyDeskKey, useSurveyDesk } from './useSurveyDesk'

export const surveyStation: StationFace = {
  key: 'survey',
  title: 'Survey',
  asks: ASKS,
  topics: ['length'],
  panel: SurveyPanel,
  board: SurveyBoard,
  strip: (ask) => !['belt', 'groove', 'wheels', 'link'].includes(ask),
  setup(context) {
    const desk = useSurveyDesk(context)
    provide(surveyDeskKey, desk)
    provide(findKey, desk.find)
    return undefined
  },
}
