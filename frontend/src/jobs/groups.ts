import type { JobStep } from './useJobs'

type Sort = JobStep['sort']

const GROUPS: Record<Sort, string> = {
  desk: 'Before you go',
  tell: 'Isolate',
  access: 'Isolate',
  stop: 'Isolate',
  lock: 'Isolate',
  'dead stop': 'Isolate',
  stored: 'Isolate',
  verify: 'Isolate',
  hands: 'Work',
  test: 'Test under power',
  run: 'Run',
}

/** What stands over a step in the list: which part of the job it is. */
export const groupOf = (step: Pick<JobStep, 'sort'>): string => GROUPS[step.sort]

/** How the machine is at a step, in words. */
export function stateOf(step: Pick<JobStep, 'sort' | 'state'>): string {
  if (step.sort === 'desk') return 'at the bench or on the way'
  if (step.sort === 'test')
    return step.state === 'running' ? 'under power, nobody near' : 'about to run: everybody clear'
  if (step.state === 'running') return 'machine running, guard on'
  if (step.state === 'isolated') return 'machine isolated'
  return 'guard on, nothing opened'
}
