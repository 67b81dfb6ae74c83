import { useQuery, useQueryClient } from '@tanstack/vue-query'
import type { InjectionKey } from 'vue'

import { api, unwrap } from '../api/client'

/** The plain signs to choose from. */
export function useSigns() {
  return useQuery({
    queryKey: ['signs'],
    staleTime: Infinity,
    queryFn: () => unwrap(api.GET('/api/signs')),
  })
}

/** Everything that shows what is open at a drive is asked anew. */
export function useRefresh() {
  const client = useQueryClient()
  return async (driveId: string): Promise<void> => {
    void client.invalidateQueries({ queryKey: ['floor'] })
    void client.invalidateQueries({ queryKey: ['log', driveId] })
    void client.invalidateQueries({ queryKey: ['found', driveId] })
    await client.invalidateQueries({ queryKey: ['drive', driveId] })
  }
}

/** What each state of a machine is called when one says when a sign shows. */
export const STATES: Record<string, string> = {
  '': 'not said',
  starting: 'as it starts',
  running: 'running',
  stopped: 'stopped',
  any: 'always',
}

/** The mark of a weight: filled for what stops the machine. */
export const mark = (weight: string) => (weight === 'stop' ? '■' : '▲')

/** Opens the slip of what was fitted or done, at one kind of it: from the page where the thought arises. */
export const doneKey: InjectionKey<(first?: string) => void> = Symbol('done')
