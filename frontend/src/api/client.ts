import createClient from 'openapi-fetch'
import { ref } from 'vue'

import { hearTime } from './clock'
import type { components, paths } from './schema'

type Schemas = components['schemas']
export type Sheet = Schemas['SheetOut']
export type SheetForm = Required<Schemas['SheetForm']>
export type Figure = Schemas['Figure']
export type Line = Schemas['Line']
export type Entry = Schemas['Entry']
export type Drawing = Schemas['Drawing']
export type DriveOut = Schemas['DriveOut']
export type FloorDrive = Schemas['FloorDriveOut']
export type Trend = Schemas['TrendOut']
export type LogEntry = Schemas['LogEntryOut']
export type Choices = Schemas['ChoicesOut']
export type Session = Schemas['SessionOut']
export type Problem = Schemas['ProblemOut']
export type Verdict = Schemas['Verdict']
export type Caution = Schemas['Caution']
export type Origin = Schemas['Origin']
export type FindForm = Required<Schemas['FindForm']>
export type Identified = Schemas['IdentifyOut']
export type Candidate = Schemas['CandidateOut']
export type GrooveCheck = Schemas['CheckOut']
export type Found = Schemas['FoundOut']
export type Layout = Schemas['LayoutOut']
export type Slip = Schemas['CounterSlip']

let csrfToken = ''
export function rememberCsrf(token: string): void {
  csrfToken = token
}

let personId = ''
/** Who is signed in, as this page has it: every request says for whom it is, and the server takes it as nobody else's. */
export function rememberPerson(id: string): void {
  personId = id
}
export const signedIn = (): string => personId

let siteId = ''
/** Whose own lists the computations go by. */
export function rememberSite(id: string): void {
  siteId = id
}

export const api = createClient<paths>({ baseUrl: '', fetch: (request) => fetch(request) })
api.use({
  onRequest({ request }) {
    if (request.method !== 'GET' && csrfToken) request.headers.set('X-CSRFToken', csrfToken)
    if (siteId) request.headers.set('Tuyere-Site', siteId)
    if (request.method !== 'GET' && personId && !request.headers.has('Tuyere-Person'))
      request.headers.set('Tuyere-Person', personId)
    return request
  },
  onResponse({ response }) {
    hearTime(response.headers.get('Tuyere-Time'))
    return undefined
  },
})

/** Told on the window when the server no longer knows who is signed in. */
export const SIGNED_OUT = 'tuyere-signed-out'

/** The server's refusal, in words, with its fields. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

/** The server could not be reached: nothing is known about whether the request arrived. */
export class Unreachable extends Error {}

/** What keeps the server from answering just now, in words; empty while all is well. Shown over every page. */
export const trouble = ref('')
const NO_CONNECTION = 'No connection to the server. What you typed is kept on this device.'

/** A refusal that says nothing of what was asked: the same again later may well be answered. */
function passes(problem: Problem): boolean {
  return problem.status === 503 || (problem.status === 429 && !problem.wait_s)
}

/** Unwrap an openapi-fetch answer: data, or a Refused / Unreachable error. */
export async function unwrap<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let answer
  try {
    answer = await call
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    trouble.value = NO_CONNECTION
    throw new Unreachable(NO_CONNECTION)
  }
  if (answer.data !== undefined) {
    trouble.value = ''
    return answer.data
  }
  const problem = answer.error as Problem | undefined
  if (problem?.status === 401) window.dispatchEvent(new Event(SIGNED_OUT))
  if (!problem?.detail || passes(problem)) {
    trouble.value = problem?.detail ?? NO_CONNECTION
    throw new Unreachable(trouble.value)
  }
  trouble.value = ''
  throw new Refused(problem)
}
export type Toothed = Schemas['ToothedOut']
export type ToothedAsk = Schemas['ToothedIn']
