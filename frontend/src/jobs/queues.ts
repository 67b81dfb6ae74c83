import { useEventListener } from '@vueuse/core'
import { computed, ref } from 'vue'

import { useSession } from '../api/queries'
import { type Queue, stuck } from './queue'

const PREFIX = 'tuyere-said-'
/** As they were kept before it was known whose they are: nobody's, and never sent. */
const NOBODYS = 'tuyere-job-said-'

export const queueKey = (person: string, job: string): string => `${PREFIX}${person}-${job}`

/** Writes a queue at once: what follows another change in the same moment is not written by the store that watches it. */
export function onDevice(key: string, queue: Queue | null): void {
  try {
    if (queue) localStorage.setItem(key, JSON.stringify(queue))
    else localStorage.removeItem(key)
  } catch {
    // A full device: it stays on the page, and is sent from there.
  }
  window.dispatchEvent(new Event('tuyere-queue'))
}

function read(key: string): Queue | null {
  try {
    const found = JSON.parse(localStorage.getItem(key) ?? 'null')
    if (!found) return null
    if (key.startsWith(NOBODYS))
      return { person: '', name: 'somebody', job: key.slice(NOBODYS.length), title: '', said: found }
    return found
  } catch {
    return null
  }
}

/** What waits on this device of jobs: the person's own, and that of others, which is never sent for them. */
export function useQueues() {
  const { data: session } = useSession()
  const all = ref<Queue[]>([])
  function look(): void {
    all.value = Object.keys(localStorage)
      .filter((key) => key.startsWith(PREFIX) || key.startsWith(NOBODYS))
      .map(read)
      .filter((found): found is Queue => Boolean(found?.said.some((s) => s.kept === undefined)))
  }
  look()
  useEventListener(window, ['storage', 'vueuse-storage', 'tuyere-queue', 'focus'], look)
  const me = computed(() => session.value?.person_id ?? '')
  return {
    own: computed(() => all.value.filter((q) => q.person === me.value && me.value)),
    others: computed(() => all.value.filter((q) => q.person !== me.value || !me.value)),
  }
}

export const unsentIn = (queue: Queue): number => queue.said.filter((s) => s.kept === undefined).length
export const isStuck = (queue: Queue): boolean => stuck(queue.said).length > 0

/** Takes a queue of nobody known off this device. */
export function forgetNobodys(job: string): void {
  localStorage.removeItem(NOBODYS + job)
  window.dispatchEvent(new Event('tuyere-queue'))
}
