/** How far this device's clock is behind the server's, in ms, as the last answer told; small differences are the way's. */
let behind = 0
const NOT_WORTH_IT_MS = 5_000

/** Hears the time that the server wrote on an answer. */
export function hearTime(date: string | null): void {
  const told = date ? Date.parse(date) : NaN
  if (Number.isNaN(told)) return
  const found = told - Date.now()
  behind = Math.abs(found) < NOT_WORTH_IT_MS ? 0 : found
}

/** Now by the server's clock: a device whose clock is wrong still says when a thing was done. */
export const serverNow = (): Date => new Date(Date.now() + behind)
