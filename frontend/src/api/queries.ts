import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, rememberCsrf, rememberPerson, rememberSite, type Session, unwrap } from './client'

function remember(session: Session): void {
  rememberCsrf(session.csrf_token)
  rememberSite(session.sites[0]?.id ?? '')
  rememberPerson(session.person_id ?? '')
}

export function useSession() {
  return useQuery({
    queryKey: ['session'],
    staleTime: Infinity,
    queryFn: async () => {
      const session = await unwrap(api.GET('/api/session'))
      remember(session)
      return session
    },
  })
}

/** Anything that changes who is signed in: the new session replaces the old one, all else is forgotten, unless it is the `same` person's. */
export function useSessionChange<Variables>(change: (variables: Variables) => Promise<Session>, same = false) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: change,
    onSuccess(session) {
      remember(session)
      if (!same)
        client.removeQueries({
          predicate: (query) => query.queryKey[0] !== 'session' && query.queryKey[0] !== 'choices',
        })
      client.setQueryData(['session'], session)
    },
  })
}

/** The site shown: the first one the person belongs to. */
export function useSite() {
  const { data } = useSession()
  return computed(() => data.value?.sites[0] ?? null)
}

export function useMayWrite() {
  const site = useSite()
  return computed(() => site.value !== null && site.value.role !== 'viewer')
}

export function useFloor() {
  const site = useSite()
  return useQuery({
    queryKey: ['floor', computed(() => site.value?.id)],
    enabled: computed(() => site.value !== null),
    queryFn: () => unwrap(api.GET('/api/sites/{site_id}/floor', { params: { path: { site_id: site.value!.id } } })),
  })
}

export function useDrive(id: MaybeRefOrGetter<string>) {
  return useQuery({
    queryKey: ['drive', computed(() => toValue(id))],
    queryFn: () => unwrap(api.GET('/api/drives/{drive_id}', { params: { path: { drive_id: toValue(id) } } })),
    refetchOnWindowFocus: false,
  })
}

export function useLog(id: MaybeRefOrGetter<string>) {
  return useQuery({
    queryKey: ['log', computed(() => toValue(id))],
    queryFn: () => unwrap(api.GET('/api/drives/{drive_id}/log', { params: { path: { drive_id: toValue(id) } } })),
  })
}

/** The kinds of drive there are. */
export function useFamilies() {
  return useQuery({
    queryKey: ['families'],
    staleTime: Infinity,
    queryFn: () => unwrap(api.GET('/api/families')),
  })
}

export function useChoices() {
  return useQuery({ queryKey: ['choices'], staleTime: Infinity, queryFn: () => unwrap(api.GET('/api/choices')) })
}

/** What was found out about a drive's belts: the newest slip, fixes on, lives of sets, the shop's own list. */
export function useFound(id: MaybeRefOrGetter<string>) {
  return useQuery({
    queryKey: ['found', computed(() => toValue(id))],
    queryFn: () => unwrap(api.GET('/api/drives/{drive_id}/found', { params: { path: { drive_id: toValue(id) } } })),
    refetchOnWindowFocus: false,
  })
}

export function useTables() {
  return useQuery({ queryKey: ['tables'], staleTime: Infinity, queryFn: () => unwrap(api.GET('/api/tables')) })
}

export function useTable(name: MaybeRefOrGetter<string>) {
  return useQuery({
    queryKey: ['tables', computed(() => toValue(name))],
    staleTime: Infinity,
    queryFn: () => unwrap(api.GET('/api/tables/{name}', { params: { path: { name: toValue(name) } } })),
  })
}
