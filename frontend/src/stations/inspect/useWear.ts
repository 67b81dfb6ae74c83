import { useQueryClient } from '@tanstack/vue-query'
import { useLocalStorage } from '@vueuse/core'
import { computed, type InjectionKey, provide, ref } from 'vue'

import { api, type Choices, type DriveOut, type Entry, unwrap } from '../../api/client'
import type { components } from '../../api/schema'
import { useWrite } from '../../api/useWrite'
import { blankEntry, usualUnit } from '../../sheet/form'
import { useAnswer } from '../../sheet/useAnswer'

type Form = Required<components['schemas']['WearForm']>

/** What is measured of wear, kept on this device until it is kept on the record; the server judges and foretells. */
export function useWear(drive: () => DriveOut, choices: () => Choices) {
  const client = useQueryClient()
  const empty = (what = ''): Form => ({ what, where: '', quantities: {}, words: {} })
  const form = useLocalStorage<Form>(`tuyere-wear-${drive().id}`, empty())
  const stamp = ref(0)
  const { answer } = useAnswer(
    () => [form.value, stamp.value],
    (signal) =>
      unwrap(
        api.POST('/api/drives/{drive_id}/wear/look', {
          params: { path: { drive_id: drive().id } },
          body: form.value,
          signal,
        }),
      ),
  )
  const what = computed({
    get: () => answer.value?.what ?? '',
    set: (said: string) => (form.value = empty(said)),
  })
  /** Another place of the same thing: what was typed at the one before does not hold here. */
  function goTo(where: string): void {
    form.value = { ...empty(what.value), where, words: form.value.words.fixed ? { fixed: form.value.words.fixed } : {} }
  }
  const at = (key: string, field: string): Entry =>
    form.value.quantities[key] ?? { ...blankEntry(), unit: usualUnit(choices(), field) }
  const put = (key: string) => (e: Entry) =>
    (form.value = { ...form.value, quantities: { ...form.value.quantities, [key]: e } })
  const word = (key: string) =>
    computed({
      get: () => form.value.words[key] ?? '',
      set: (said: string) => (form.value = { ...form.value, words: { ...form.value.words, [key]: said } }),
    })
  const hourMeter = ref('')
  const note = ref('')
  const kept = ref('')
  const { write, busy, waiting, problem, retry } = useWrite(
    `wear-${drive().id}`,
    (body: Omit<components['schemas']['KeepWear'], 'id'>, key, id) =>
      unwrap(
        api.POST('/api/drives/{drive_id}/wear', {
          params: { path: { drive_id: drive().id }, header: { 'Idempotency-Key': key } },
          body: { ...body, id },
        }),
      ),
  )
  async function keep(): Promise<void> {
    const done = await write({ ...form.value, hour_meter: hourMeter.value, note: note.value })
    if (!done) return
    kept.value = `Kept. ${done.headline}.`
    // On to the next place that was not measured yet, if there is one.
    const places = answer.value?.places ?? []
    const next = places.find((p) => p.at === null && p.where !== form.value.where)
    goTo(next?.where ?? form.value.where)
    hourMeter.value = note.value = ''
    stamp.value += 1
    for (const key of ['log', 'drive', 'rounds']) void client.invalidateQueries({ queryKey: [key, drive().id] })
    void client.invalidateQueries({ queryKey: ['floor'] })
  }
  return { form, answer, what, goTo, at, put, word, hourMeter, note, kept, keep, busy, waiting, problem, retry }
}

export type WearDesk = ReturnType<typeof useWear>
export const wearKey: InjectionKey<WearDesk> = Symbol('wear')
export const provideWear = (desk: WearDesk): void => provide(wearKey, desk)
