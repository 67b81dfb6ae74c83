import { settings } from '../../settings'

/** A kept error as text in the person's system: the value is the server's, only its unit is the page's. */
export function fineText(key: 'angle' | 'twist' | 'offset', si: number): string {
  const sign = si < 0 ? '−' : ''
  const size = Math.abs(si)
  if (key !== 'offset') return `${sign}${((size * 180) / Math.PI).toFixed(2)}°`
  return settings.value.system === 'us'
    ? `${sign}${(size / 0.0254).toFixed(3)} in`
    : `${sign}${(size * 1000).toFixed(2)} mm`
}
