/** Times in the words a person would use. */

import { serverNow } from './api/clock'

const DAY = 86_400_000

export function ago(iso: string): string {
  const days = Math.floor((serverNow().getTime() - new Date(iso).getTime()) / DAY)
  if (days <= 0) return 'today'
  if (days === 1) return 'yesterday'
  if (days < 60) return `${days} days ago`
  return `${Math.round(days / 30.4)} months ago`
}

export function dueText(days: number): string {
  if (days < -1) return `${-days} days late`
  if (days === -1) return '1 day late'
  if (days === 0) return 'today'
  if (days === 1) return 'tomorrow'
  return `in ${days} days`
}

export function when(iso: string): string {
  return new Date(iso).toLocaleString(undefined, {
    year: 'numeric',
    month: 'short',
    day: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  })
}

/** The day of a time, by this device's own calendar. */
export function dayOf(iso: string): string {
  return new Date(iso).toLocaleDateString(undefined, { year: 'numeric', month: 'short', day: 'numeric' })
}

/** A calendar day, given as YYYY-MM-DD: no time of day, so no time zone can shift it. */
export function dateText(day: string): string {
  const [year, month, date] = day.split('-').map(Number)
  if (!year || !month || !date) return day
  return new Date(year, month - 1, date).toLocaleDateString(undefined, {
    year: 'numeric',
    month: 'short',
    day: 'numeric',
  })
}

/** Today and so many days on, as YYYY-MM-DD by this device's own calendar. */
export function dayFromNow(days: number): string {
  const day = serverNow()
  day.setDate(day.getDate() + days)
  return [day.getFullYear(), day.getMonth() + 1, day.getDate()].map((n) => String(n).padStart(2, '0')).join('-')
}

export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
