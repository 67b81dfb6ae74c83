import { keepPreviousData, useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
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

/** What of the floor is looked for: words, an area, those that are archived. */
export interface FloorAsked {
  find: string
  area: string
  away: boolean
}

/** Drives of the site, what wants the most attention first, page by page. */
export function useFloor(asked: MaybeRefOrGetter<FloorAsked>) {
  const site = useSite()
  return useInfiniteQuery({
    queryKey: ['floor', computed(() => site.value?.id), computed(() => toValue(asked))],
    enabled: computed(() => site.value !== null),
    initialPageParam: '',
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam, signal }) =>
      unwrap(
        api.GET('/api/sites/{site_id}/floor', {
          params: { path: { site_id: site.value!.id }, query: { ...toValue(asked), after: pageParam, limit: 100 } },
          signal,
        }),
      ),
    getNextPageParam: (page) => page.next || undefined,
  })
}

/** What falls due at the site within a month. */
export function useSiteDues(asked: MaybeRefOrGetter<FloorAsked>) {
  const site = useSite()
  return useQuery({
    queryKey: ['floor', 'dues', computed(() => site.value?.id), computed(() => toValue(asked))],
    enabled: computed(() => site.value !== null),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => {
      const { find, area } = toValue(asked)
      return unwrap(
        api.GET('/api/sites/{site_id}/dues', {
          params: { path: { site_id: site.value!.id }, query: { find, area, days: 30 } },
          signal,
        }),
      )
    },
  })
}

/** Machines of the site whose names hold what is typed. */
export function useMachineNames(find: MaybeRefOrGetter<string>) {
  const site = useSite()
  const typed = refDebounced(
    computed(() => toValue(find).trim()),
    150,
  )
  return useQuery({
    queryKey: ['floor', 'machines', computed(() => site.value?.id), typed],
    enabled: computed(() => site.value !== null),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/sites/{site_id}/machines', {
          params: { path: { site_id: site.value!.id }, query: { find: typed.value } },
          signal,
        }),
      ),
  })
}

export function useDrive(id: MaybeRefOrGetter<string>) {
  return useQuery({
    queryKey: ['drive', computed(() => toValue(id))],
    queryFn: () => unwrap(api.GET('/api/drives/{drive_id}', { params: { path: { drive_id: toValue(id) } } })),
    refetchOnWindowFocus: false,
  })
}

/** What happened to a drive, newest first, page by page; of some kinds, or of all. */
export function useLog(id: MaybeRefOrGetter<string>, kinds: MaybeRefOrGetter<readonly string[]> = []) {
  return useInfiniteQuery({
    queryKey: ['log', computed(() => toValue(id)), computed(() => toValue(kinds).join(','))],
    initialPageParam: '',
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam, signal }) =>
      unwrap(
        api.GET('/api/drives/{drive_id}/log', {
          params: {
            path: { drive_id: toValue(id) },
            query: { kinds: toValue(kinds).join(','), before: pageParam, limit: 60 },
          },
          signal,
        }),
      ),
    getNextPageParam: (page) => page.next || undefined,
  })
}

/** What the curves of a drive are drawn of. */
export function useTrend(id: MaybeRefOrGetter<string>) {
  return useQuery({
    queryKey: ['log', computed(() => toValue(id)), 'trend'],
    queryFn: () => unwrap(api.GET('/api/drives/{drive_id}/trend', { params: { path: { drive_id: toValue(id) } } })),
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
