import type { Job, JobStep } from './useJobs'

/** A step said on this device that the server has not taken yet. */
export interface Said {
  step: string
  standing: JobStep['standing']
  words: string
  at: string
  row_version: number
  key: string
}

/** The job as it stands with what this device still has to send. */
export function withSaid(job: Job, queue: Said[]): Job {
  const last = new Map(queue.map((s) => [s.step, s]))
  if (!last.size) return job
  const steps = job.steps.map((step) => {
    const said = last.get(step.key)
    return said ? { ...step, standing: said.standing, words: said.words, at: said.at } : step
  })
  return { ...job, steps, next: steps.find((s) => !s.standing)?.key ?? '' }
}

/** Adds what was said; a step said anew before it was sent replaces what waited. */
export function queued(queue: Said[], said: Said): Said[] {
  const waiting = queue.findIndex((s, i) => s.step === said.step && i > 0)
  return waiting > 0 ? queue.map((s, i) => (i === waiting ? said : s)) : [...queue, said]
}

/** What still waits once one was taken: the same step said again goes over the version that was kept. */
export function taken(queue: Said[], version: number): Said[] {
  const [sent, ...rest] = queue
  return rest.map((s) => (s.step === sent?.step ? { ...s, row_version: version } : s))
}
