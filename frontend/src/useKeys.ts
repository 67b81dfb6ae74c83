import { useEventListener } from '@vueuse/core'

import { settings } from './settings'

function typing(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null
  return Boolean(target?.closest('input, textarea, select, [contenteditable], .el-overlay'))
}

/** Single keys act outside fields only and can be turned off; Alt with the key works everywhere. */
export function useKeys(keys: Record<string, () => void>): void {
  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey) return
    const key = event.altKey ? event.code.replace(/^Digit/, '') : event.key
    const act = keys[key]
    if (!act || (!event.altKey && (typing(event) || !settings.value.keys))) return
    event.preventDefault()
    act()
  })
}
