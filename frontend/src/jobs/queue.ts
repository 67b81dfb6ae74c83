import type { Job, JobStep } from './useJobs'

/** A step said on this device. `kept`: the version that the server gave it; until then it still has to be sent. */
export interface Said {
  step: string
  standing: JobStep['standing']
  words: string
  at: string
  row_version: number
  key: string
  /** All that stand behind it are taken back with it. */
  later?: boolean
  kept?: number
}

/** The job as it stands with what this device said and the job at hand does not show yet. */
export function withSaid(job: Job, queue: Said[]): Job {
  if (!queue.length) return job
  let steps = job.steps
  for (const said of queue) {
    const at = steps.findIndex((s) => s.key === said.step)
    steps = steps.map((step, i) => {
      if (i === at)
        return {
          ...step,
          standing: said.standing,
          words: said.words,
          at: said.at,
          row_version: said.kept ?? step.row_version,
        }
      // The server counts each that goes back: what is said of it anew goes over that version.
      return said.later && i > at && step.standing
        ? { ...step, standing: '' as const, words: '', row_version: step.row_version + 1 }
        : step
    })
  }
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
