import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'
import { useRouter } from 'vue-router'

import { api, unwrap } from '../api/client'
import { useSite } from '../api/queries'
import type { components } from '../api/schema'
import { useWrite } from '../api/useWrite'

export type Job = components['schemas']['JobOut']
export type JobStep = components['schemas']['JobStepOut']
export type JobKind = components['schemas']['JobKindOut']
export type MachineAsk = components['schemas']['MachineAskOut']

/** What may be done at a drive, what is under way, what was signed off. */
export function useJobs(driveId: MaybeRefOrGetter<string>) {
  return useQuery({
    queryKey: ['jobs', computed(() => toValue(driveId))],
    queryFn: () => unwrap(api.GET('/api/drives/{drive_id}/jobs', { params: { path: { drive_id: toValue(driveId) } } })),
  })
}

/** A job as it would be composed with the answers so far; the one before stands until the next has come. */
export function useJobPreview(
  driveId: MaybeRefOrGetter<string>,
  body: MaybeRefOrGetter<{ kind: string; asked: Record<string, string>; machine: Record<string, boolean> }>,
) {
  return useQuery({
    queryKey: ['job-preview', computed(() => toValue(driveId)), computed(() => toValue(body))],
    enabled: computed(() => toValue(body).kind !== ''),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () =>
      unwrap(
        api.POST('/api/drives/{drive_id}/jobs/preview', {
          params: { path: { drive_id: toValue(driveId) } },
          body: toValue(body),
        }),
      ),
  })
}

/** Jobs of the whole site that are waiting or under way. */
export function useSiteJobs() {
  const site = useSite()
  return useQuery({
    queryKey: ['site-jobs', computed(() => site.value?.id)],
    enabled: computed(() => site.value !== null),
    queryFn: () => unwrap(api.GET('/api/sites/{site_id}/jobs', { params: { path: { site_id: site.value!.id } } })),
  })
}

/** Makes a job and opens it; from a due that asks something first, opens the list of jobs with that due in hand. */
export function useStartJob(name: string) {
  const router = useRouter()
  const client = useQueryClient()
  let at = ''
  const { write, busy, problem } = useWrite(
    `job-${name}`,
    (body: { kind: string; asked: Record<string, string>; due: string; machine: Record<string, boolean> }, key, id) =>
      unwrap(
        api.POST('/api/drives/{drive_id}/jobs', {
          params: { path: { drive_id: at }, header: { 'Idempotency-Key': key } },
          body: { ...body, id },
        }),
      ),
  )
  async function start(
    driveId: string,
    kind: string,
    asked: Record<string, string> = {},
    due = '',
    machine: Record<string, boolean> = {},
  ): Promise<void> {
    at = driveId
    const made = await write({ kind, asked, due, machine })
    if (made) {
      void client.invalidateQueries({ queryKey: ['jobs', driveId] })
      void client.invalidateQueries({ queryKey: ['site-jobs'] })
      await router.push(`/jobs/${made.id}`)
    } else if (due && problem.value?.status === 422) {
      problem.value = null
      await router.push({ path: `/drives/${driveId}/jobs`, query: { due } })
    }
  }
  return { start, busy, problem }
}
