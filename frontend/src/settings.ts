import { usePreferredDark, useStorage } from '@vueuse/core'
import { computed, watchEffect } from 'vue'

export type System = 'us' | 'si'

/** The person's own settings, kept on this device. */
export const settings = useStorage('tuyere-settings', {
  system: 'us' as System,
  word: 'sheave' as 'sheave' | 'pulley',
  theme: 'auto' as 'auto' | 'light' | 'dark',
  keys: true,
  units: {} as Record<string, string>,
})

const prefersDark = usePreferredDark()
export const isDark = computed(
  () => settings.value.theme === 'dark' || (settings.value.theme === 'auto' && prefersDark.value),
)
watchEffect(() => document.documentElement.classList.toggle('dark', isDark.value))

/** The server writes "sheave"; show the word the person chose. */
export function say(text: string): string {
  if (settings.value.word === 'sheave') return text
  return text.replace(/sheave/g, 'pulley').replace(/Sheave/g, 'Pulley')
}

/** The figure's text in the person's system. */
export function inSystem<T extends { us: string; si: string }>(both: T): string {
  return settings.value.system === 'us' ? both.us : both.si
}

export function swapUnits(): void {
  settings.value.system = settings.value.system === 'us' ? 'si' : 'us'
}

/** For the ticks of a force axis only: every figure comes from the server in both systems. */
export const NEWTON_PER_LBF = 4.4482216152605
