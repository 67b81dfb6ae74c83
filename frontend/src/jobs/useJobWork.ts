import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useEventListener, useLocalStorage, useTimeoutFn } from '@vueuse/core'
import { v4 as uuid } from 'uuid'
import { computed, ref, shallowRef, watch } from 'vue'

import { api, type Problem, Refused, Unreachable, unwrap } from '../api/client'
import { queued, type Said, taken, toSend, withSaid } from './queue'
import type { Job, JobStep } from './useJobs'

const RETRY_AFTER_MS = 5_000

/** A job in hand: kept on this device too, so that a lost signal in the middle loses nothing; each step is sent once, in order. */
export function useJobWork(id: string) {
  const client = useQueryClient()
  const copy = useLocalStorage<string>(`tuyere-job-${id}`, '')
  const queue = useLocalStorage<Said[]>(`tuyere-job-said-${id}`, [])
  const problem = shallowRef<Problem | null>(null)
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
  const job = computed(() => (kept.value ? withSaid(kept.value, queue.value) : null))

  const { start: later, stop: notLater } = useTimeoutFn(() => void send(), RETRY_AFTER_MS, { immediate: false })
  async function send(): Promise<void> {
    if (sending.value || !queue.value.length) return
    let at: Said | undefined
    sending.value = true
    notLater()
    try {
      for (;;) {
        at = toSend(queue.value)[0]
        if (!at && (!queue.value.length || !(await fresh()))) break
        if (!at) continue // said while the job was read anew, perhaps
        const { key, step, standing, words, at: when, row_version, later: behind = false } = at
        const done = await unwrap(
          api.POST('/api/jobs/{job_id}/steps', {
            params: { path: { job_id: id }, header: { 'Idempotency-Key': key } },
            body: { step, standing, words, at: when, row_version, later: behind },
          }),
        )
        queue.value = taken(queue.value, key, done.row_version)
      }
    } catch (reason) {
      if (reason instanceof Unreachable) later()
      else if (reason instanceof Refused) {
        problem.value = reason.problem
        queue.value = queue.value.filter((s) => s.key !== at?.key)
        await fresh()
        if (toSend(queue.value).length) later()
      } else throw reason
    } finally {
      sending.value = false
    }
  }
  /** Reads the job anew, and lets go of what it shows now; whether it could be read. */
  async function fresh(): Promise<boolean> {
    const shown = queue.value.filter((s) => s.kept !== undefined).map((s) => s.key)
    if ((await refetch()).isError) return false
    queue.value = queue.value.filter((s) => !shown.includes(s.key))
    const drive = kept.value?.drive_id
    for (const key of ['jobs', 'drive', 'log', 'photos']) void client.invalidateQueries({ queryKey: [key, drive] })
    for (const key of ['site-jobs', 'floor']) void client.invalidateQueries({ queryKey: [key] })
    return true
  }
  function say(step: JobStep, standing: Said['standing'], words = '', behind = false): void {
    problem.value = null
    queue.value = queued(queue.value, {
      step: step.key,
      standing,
      words,
      at: new Date().toISOString(),
      row_version: step.row_version,
      key: uuid(),
      later: behind,
    })
    void send()
  }
  useEventListener(window, 'online', () => void send())
  void send()
  /** Said here and not shown by the server's own answer yet: nothing is signed off over it. */
  const unsent = computed(() => queue.value.length > 0)
  return {
    job,
    error,
    say,
    problem,
    fresh,
    unsent,
    waiting: computed(() => (sending.value ? 0 : toSend(queue.value).length)),
  }
}

export type JobWork = ReturnType<typeof useJobWork>
