import type { Job, JobStep } from './useJobs'

/** A step said on this device. `kept`: the version that the server gave it; until then it still has to be sent. `refused`: why it was not taken. */
export interface Said {
  step: string
  do?: string
  standing: JobStep['standing']
  words: string
  at: string
  row_version: number
  key: string
  /** All that stand behind it are taken back with it. */
  later?: boolean
  kept?: number
  refused?: string
  /** The field of the refusal: what there is to mend. */
  field?: string
}

/** What one person said of one job on this device, in order. */
export interface Queue {
  person: string
  name: string
  job: string
  title: string
  said: Said[]
}

/** A refusal of what was said, and not of the moment: only these are shown to be mended. All else waits. */
export const isRefusal = (status: number): boolean => status === 409 || status === 422

/** What was refused, and all that was said behind it: none of it is sent until that is mended or withdrawn. */
export function stuck(said: Said[]): Said[] {
  const at = said.findIndex((s) => s.refused)
  return at < 0 ? [] : said.slice(at)
}

/** What counts as said: all in front of a refusal. */
const live = (said: Said[]): Said[] => said.slice(0, said.length - stuck(said).length)

/** The job as it stands with what this device said and the job at hand does not show yet. */
export function withSaid(job: Job, said: Said[]): Job {
  if (!said.length) return job
  let steps = job.steps
  for (const one of live(said)) {
    const at = steps.findIndex((s) => s.key === one.step)
    steps = steps.map((step, i) => {
      if (i === at)
        return {
          ...step,
          standing: one.standing,
          words: one.words,
          at: one.at,
          row_version: one.kept ?? step.row_version,
        }
      // The server counts each that goes back: what is said of it anew goes over that version.
      return one.later && i > at && step.standing
        ? { ...step, standing: '' as const, words: '', row_version: step.row_version + 1 }
        : step
    })
  }
  return { ...job, steps, next: steps.find((s) => !s.standing)?.key ?? '' }
}

/** What was not taken by the server yet and may be sent, in order. */
export const toSend = (said: Said[]): Said[] => live(said).filter((s) => s.kept === undefined)

/**
 * Adds what was said. A step said anew before it was sent replaces what waited, but not what may be on its way; one that was refused
 * is mended by saying it again; anything else goes in front of what is stuck.
 */
export function queued(said: Said[], one: Said): Said[] {
  const onItsWay = toSend(said)[0]?.key
  const waiting = said.find((s) => s.step === one.step && s.kept === undefined && s.key !== onItsWay)
  if (waiting) return said.map((s) => (s === waiting ? one : s))
  return [...live(said), one, ...stuck(said)]
}

/** One was taken: the same step said again goes over the version that was kept. */
export function taken(said: Said[], key: string, version: number): Said[] {
  const step = said.find((s) => s.key === key)?.step
  return said.map((s) => {
    if (s.key === key) return { ...s, kept: version }
    return s.step === step && s.kept === undefined ? { ...s, row_version: version } : s
  })
}

/** One was refused: it and all behind it stay, in order. */
export function refused(said: Said[], key: string, why: string, field = ''): Said[] {
  return said.map((s) => (s.key === key ? { ...s, refused: why, field } : s))
}

/** A refused one to be sent again under a key of its own, over the version that stands now. */
export function mended(said: Said[], key: string, change: Pick<Said, 'key' | 'at' | 'words' | 'row_version'>): Said[] {
  return said.map((s) => (s.key === key ? { ...s, ...change, refused: undefined, field: undefined } : s))
}
