import type { Job, JobStep } from './useJobs'

/** A step said on this device. `kept`: the version that the server gave it; until then it still has to be sent. */
export interface Said {
  step: string
  standing: JobStep['standing']
  words: string
  at: string
  row_version: number
  key: string
  kept?: number
}

/** The job as it stands with what this device said and the job at hand does not show yet. */
export function withSaid(job: Job, queue: Said[]): Job {
  const last = new Map(queue.map((s) => [s.step, s]))
  if (!last.size) return job
  const steps = job.steps.map((step) => {
    const said = last.get(step.key)
    return said
      ? { ...step, standing: said.standing, words: said.words, at: said.at, row_version: said.kept ?? step.row_version }
      : step
  })
  return { ...job, steps, next: steps.find((s) => !s.standing)?.key ?? '' }
}

/** What was not taken by the server yet, in order. */
export const toSend = (queue: Said[]): Said[] => queue.filter((s) => s.kept === undefined)

/** Adds what was said; a step said anew before it was sent replaces what waited, but not what may be on its way. */
export function queued(queue: Said[], said: Said): Said[] {
  const onItsWay = toSend(queue)[0]?.key
  const waiting = queue.find((s) => s.step === said.step && s.kept === undefined && s.key !== onItsWay)
  return waiting ? queue.map((s) => (s === waiting ? said : s)) : [...queue, said]
}

/** One was taken: the same step said again goes over the version that was kept. */
export function taken(queue: Said[], key: string, version: number): Said[] {
  const step = queue.find((s) => s.key === key)?.step
  return queue.map((s) => {
    if (s.key === key) return { ...s, kept: version }
    return s.step === step && s.kept === undefined ? { ...s, row_version: version } : s
  })
}
