import { api, unwrap } from '../api/client'
import type { Survey } from './form'

interface Old {
  was?: object
  form: { survey: object; family?: string }
}
export const draftKey = (id: string) => `tuyere-draft-${id}`

/** A draft begun before surveys had stages becomes one of today, and loses nothing typed: the server reads both. */
export async function freshenDraft(id: string, family: string): Promise<void> {
  const text = localStorage.getItem(draftKey(id))
  const draft = text ? (JSON.parse(text) as Old | null) : null
  if (!draft || 'stages' in draft.form.survey) return
  const today = async (survey: object) =>
    (await unwrap(api.POST('/api/calc/survey', { body: { family, survey } as never }))).survey
  const fresh = { ...draft, form: { ...draft.form, survey: await today(draft.form.survey) } }
  if (draft.was) fresh.was = (await today(draft.was)) as Survey
  delete fresh.form.family
  localStorage.setItem(draftKey(id), JSON.stringify(fresh))
}
