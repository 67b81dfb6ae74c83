import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useLocalStorage } from '@vueuse/core'
import { computed, type InjectionKey, provide, ref } from 'vue'

import { api, type DriveOut, unwrap } from '../../api/client'
import type { components } from '../../api/schema'
import { useWrite } from '../../api/useWrite'
import { useRefresh } from '../../open/useOpen'

type Schemas = components['schemas']
export type RoundItem = Schemas['RoundItemOut']
type Found = Schemas['FoundForm']['found']
type ItemSaid = Schemas['FoundForm'] & { round: string }

/** A round at a drive: what is under way, the item one stands at, answering, finishing. The server holds all of it. */
export function useRound(drive: () => DriveOut) {
  const client = useQueryClient()
  const refresh = useRefresh()
  const { data, error, refetch } = useQuery({
    queryKey: ['rounds', computed(() => drive().id)],
    queryFn: () => unwrap(api.GET('/api/drives/{drive_id}/rounds', { params: { path: { drive_id: drive().id } } })),
  })
  const round = computed(() => data.value?.under_way ?? null)
  const items = computed(() => round.value?.items ?? [])
  const left = computed(() => items.value.filter((i) => !i.found))
  /** The item one went to; else the first that is left. */
  const gone = ref('')
  const item = computed(() => items.value.find((i) => i.key === gone.value) ?? left.value[0] ?? null)
  /** Locked out and tried, said once a round on this device: what is stopped is looked at only then. */
  const locked = useLocalStorage(`tuyere-round-locked-${drive().id}`, '')
  const mayStop = computed(() => locked.value === round.value?.id)

  async function again(): Promise<void> {
    await client.invalidateQueries({ queryKey: ['rounds', drive().id] })
    await refresh(drive().id)
  }
  const began = useWrite(`round-${drive().id}`, (body: { depth: Schemas['BeginRound']['depth'] }, key, id) =>
    unwrap(
      api.POST('/api/drives/{drive_id}/rounds', {
        params: { path: { drive_id: drive().id }, header: { 'Idempotency-Key': key } },
        body: { ...body, id },
      }),
    ),
  )
  async function begin(depth: Schemas['BeginRound']['depth']): Promise<void> {
    gone.value = ''
    await began.write({ depth })
    await again()
  }
  const answered = useWrite(`round-item-${drive().id}`, (body: ItemSaid, key) => {
    const { round: id, ...rest } = body
    return unwrap(
      api.POST('/api/rounds/{round_id}/items', {
        params: { path: { round_id: id }, header: { 'Idempotency-Key': key } },
        body: rest,
      }),
    )
  })
  /** Say what was found; the finding it raised, or null where it was refused or raised none. */
  async function say(at: RoundItem, found: Found, words: string): Promise<{ finding_id: string | null } | null> {
    const done = await answered.write({
      round: round.value!.id,
      item: at.key,
      found,
      words,
      row_version: at.row_version,
    })
    // Who went to another item meanwhile stays there.
    if (done && ['', at.key].includes(gone.value)) gone.value = found === 'not ok' ? at.key : ''
    await again()
    return done && { finding_id: done.finding_id ?? null }
  }
  const ended = useWrite(`round-end-${drive().id}`, (body: { id: string; row_version: number; note: string }, key) => {
    const { id, ...rest } = body
    return unwrap(
      api.POST('/api/rounds/{round_id}/finish', {
        params: { path: { round_id: id }, header: { 'Idempotency-Key': key } },
        body: rest,
      }),
    )
  })
  const last = ref('')
  async function finish(note: string): Promise<void> {
    const at = round.value!
    const done = await ended.write({ id: at.id, row_version: at.row_version, note })
    if (done) last.value = `Finished: ${at.done} of ${at.items.length} looked at, ${at.not_ok} not OK.${(done.dues_done ?? []).map((d) => ` Due done: ${d}.`).join('')}` // prettier-ignore
    await again()
  }
  return { data, error, refetch, round, items, left, item, gone, locked, mayStop, begin, began, say, answered, finish, ended, last } // prettier-ignore
}

export type RoundDesk = ReturnType<typeof useRound>
export const roundKey: InjectionKey<RoundDesk> = Symbol('round')
export const provideRound = (desk: RoundDesk): void => provide(roundKey, desk)
