import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { StorageSerializers, useEventListener, useLocalStorage, useTimeoutFn } from '@vueuse/core'
import { v4 as uuid } from 'uuid'
import { computed, onScopeDispose, ref, watch } from 'vue'

import { api, Refused, signedIn, Unreachable, unwrap } from '../api/client'
import { serverNow } from '../api/clock'
import { useSession } from '../api/queries'
import { isRefusal, mended, type Queue, queued, refused, type Said, stuck, taken, toSend, withSaid } from './queue'
import { onDevice, queueKey } from './queues'
import type { Job, JobStep } from './useJobs'

const RETRY_AFTER_MS = 5_000

/**
 * A job in hand: kept on this device too, so that a lost signal in the middle loses nothing; each step is sent once, in order, as the
 * person who said it and nobody else. What is refused stays with all that is behind it, to be mended or withdrawn.
 */
export function useJobWork(id: string) {
  const client = useQueryClient()
  const { data: session } = useSession()
  const person = session.value?.person_id ?? ''
  const copy = useLocalStorage<string>(`tuyere-job-${id}`, '')
  const queue = useLocalStorage<Queue | null>(queueKey(person, id), null, { serializer: StorageSerializers.object })
  const said = computed({
    get: () => queue.value?.said ?? [],
    set: (now) => {
      const title = kept.value?.title ?? queue.value?.title ?? ''
      queue.value = now.length ? { person, name: session.value?.name ?? '', job: id, title, said: now } : null
      onDevice(queueKey(person, id), queue.value)
    },
  })
  /** Why what waits is not taken just now, where it is not for want of a connection. */
  const held = ref('')
  const sending = ref(false)
  const { data, error, refetch } = useQuery({
    queryKey: ['job', id],
    queryFn: () => unwrap(api.GET('/api/jobs/{job_id}', { params: { path: { job_id: id } } })),
    retry: false,
    // What was read at a station meanwhile counts for the step at hand.
    refetchOnMount: 'always',
  })
  watch(data, (job) => {
    const ended = job?.standing === 'signed off' || job?.standing === 'dropped'
    if (job) copy.value = ended ? '' : JSON.stringify(job)
  })
  const kept = computed<Job | null>(() => data.value ?? (copy.value ? (JSON.parse(copy.value) as Job) : null))
  const job = computed(() => (kept.value ? withSaid(kept.value, said.value) : null))

  let left = false
  onScopeDispose(() => (left = true))
  /** Whether this page is still the page of the person whose queue it is. */
  const mine = () => !left && person !== '' && signedIn() === person
  const { start: later, stop: notLater } = useTimeoutFn(() => void send(), RETRY_AFTER_MS, { immediate: false })
  async function send(): Promise<void> {
    if (sending.value || !said.value.length || !mine()) return
    let at: Said | undefined
    sending.value = true
    notLater()
    try {
      while (mine()) {
        at = toSend(said.value)[0]
        if (!at && (!said.value.some((s) => s.kept !== undefined) || !(await fresh()))) break
        if (!at) continue // said while the job was read anew, perhaps
        const { key, step, standing, words, at: when, row_version, later: behind = false } = at
        const done = await unwrap(
          api.POST('/api/jobs/{job_id}/steps', {
            params: { path: { job_id: id }, header: { 'Idempotency-Key': key } },
            headers: { 'Tuyere-Person': person },
            body: { step, standing, words, at: when, row_version, later: behind },
          }),
        )
        held.value = ''
        said.value = taken(said.value, key, done.row_version)
      }
    } catch (reason) {
      if (reason instanceof Unreachable) held.value = ''
      else if (!(reason instanceof Refused)) throw reason
      else if (isRefusal(reason.problem.status)) {
        const { detail, errors } = reason.problem
        if (at) said.value = refused(said.value, at.key, errors?.[0]?.detail ?? detail, errors?.[0]?.field)
        await fresh()
        return
      } else {
        held.value = reason.problem.detail
        // A page out of date gets its token anew, and goes on.
        if (reason.problem.status === 400) await client.refetchQueries({ queryKey: ['session'] })
      }
      later()
    } finally {
      sending.value = false
    }
  }
  /** Reads the job anew, and lets go of what it shows now; whether it could be read. */
  async function fresh(): Promise<boolean> {
    const shown = said.value.filter((s) => s.kept !== undefined).map((s) => s.key)
    if ((await refetch()).isError) return false
    if (shown.length) said.value = said.value.filter((s) => !shown.includes(s.key))
    const drive = kept.value?.drive_id
    for (const key of ['jobs', 'drive', 'log', 'photos']) void client.invalidateQueries({ queryKey: [key, drive] })
    for (const key of ['site-jobs', 'floor']) void client.invalidateQueries({ queryKey: [key] })
    return true
  }
  function say(step: JobStep, standing: Said['standing'], words = '', behind = false): void {
    said.value = queued(said.value, {
      step: step.key,
      do: step.do,
      standing,
      words,
      at: serverNow().toISOString(),
      row_version: step.row_version,
      key: uuid(),
      later: behind,
    })
    void send()
  }
  /** Sends what was refused again, with other words or another time, over what stands now. */
  function mend(one: Said, words: string, at: string): void {
    const row_version = job.value?.steps.find((s) => s.key === one.step)?.row_version ?? one.row_version
    said.value = mended(said.value, one.key, { key: uuid(), words, at, row_version })
    void send()
  }
  function withdraw(one: Said): void {
    // What stood behind a refusal was never tried: once that is gone, the next is the first.
    said.value = said.value.filter((s) => s.key !== one.key)
    void send()
  }
  useEventListener(window, 'online', () => void send())
  void send()
  return {
    job,
    error,
    say,
    mend,
    withdraw,
    fresh,
    stuck: computed(() => stuck(said.value)),
    held,
    /** Said here and not shown by the server's own answer yet: nothing is signed off over it. */
    unsent: computed(() => said.value.length > 0),
    waiting: computed(() => (sending.value ? 0 : toSend(said.value).length)),
  }
}

export type JobWork = ReturnType<typeof useJobWork>
