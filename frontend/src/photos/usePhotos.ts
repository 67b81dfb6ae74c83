import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, unwrap } from '../api/client'
import type { components } from '../api/schema'
import { useWrite } from '../api/useWrite'
import { shrink } from './shrink'

export type Photo = components['schemas']['PhotoOut']
export type PhotoForm = Required<components['schemas']['PhotoForm']>

export const pictureOf = (photo: { id: string }, size: 'whole' | 'small') =>
  `/api/photos/${photo.id}/picture?size=${size}`

/** The photographs of a drive, newest first. */
export function usePhotos(driveId: MaybeRefOrGetter<string>) {
  return useQuery({
    queryKey: ['photos', computed(() => toValue(driveId))],
    queryFn: () =>
      unwrap(api.GET('/api/drives/{drive_id}/photos', { params: { path: { drive_id: toValue(driveId) } } })),
    select: (found) => found.photos,
  })
}

/** The step of a job that a photograph shows. */
type Of = { job_id?: string; step?: string }

/** Sending a photograph: made small first; sent until the server answers, and stored once. */
export function useSendPhoto(driveId: () => string, name: string) {
  const client = useQueryClient()
  let picture: Blob = new Blob()
  const { write, busy, waiting, problem, retry } = useWrite(
    `photo-${name}`,
    (body: { finding_id: string; note: string; print: string; of: Of }, key, id) =>
      unwrap(
        api.POST('/api/drives/{drive_id}/photos', {
          params: {
            path: { drive_id: driveId() },
            query: { id, note: body.note, ...(body.finding_id ? { finding_id: body.finding_id } : {}), ...body.of },
            header: { 'Idempotency-Key': key },
          },
          body: picture as unknown as string,
          bodySerializer: (b) => b as unknown as Blob,
          headers: { 'Content-Type': picture.type || 'application/octet-stream' },
        }),
      ),
  )
  /** The id of the kept photograph, or null where it was refused. */
  async function send(file: File, findingId = '', of: Of = {}): Promise<string | null> {
    picture = await shrink(file)
    const print = `${file.name} ${file.size} ${file.lastModified}`
    const done = await write({ finding_id: findingId, note: '', print, of })
    await client.invalidateQueries({ queryKey: ['photos', driveId()] })
    return done?.id ?? null
  }
  return { send, busy, waiting, problem, retry }
}

/** Turning, marking, naming or putting a photograph away. */
export function useChangePhoto(driveId: () => string) {
  const client = useQueryClient()
  const { write, busy, waiting, problem } = useWrite(
    `photo-change-${driveId()}`,
    (body: PhotoForm & { id: string }, key) => {
      const { id, ...form } = body
      return unwrap(
        api.POST('/api/photos/{photo_id}', {
          params: { path: { photo_id: id }, header: { 'Idempotency-Key': key } },
          body: form,
        }),
      )
    },
  )
  async function change(id: string, form: PhotoForm): Promise<number | null> {
    const done = await write({ ...form, id })
    await client.invalidateQueries({ queryKey: ['photos', driveId()] })
    return done?.row_version ?? null
  }
  return { change, busy, waiting, problem }
}
