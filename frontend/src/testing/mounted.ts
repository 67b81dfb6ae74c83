import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { type App, type Component, createApp, h, type InjectionKey } from 'vue'

/** For tests alone: a component on the page, with what is provided to it. */
export interface Mounted {
  el: HTMLElement
  app: App
}
const standing: App[] = []

export function mounted(
  component: Component,
  props: () => Record<string, unknown>,
  provided: [InjectionKey<unknown>, unknown][] = [],
  client = new QueryClient({ defaultOptions: { queries: { retry: false } } }),
): Mounted {
  const el = document.body.appendChild(document.createElement('div'))
  const app = createApp({ render: () => h(component, props()) })
  app.use(VueQueryPlugin, { queryClient: client })
  for (const [key, value] of provided) app.provide(key, value)
  app.mount(el)
  standing.push(app)
  return { el, app }
}

export function takenDown(): void {
  for (const app of standing.splice(0)) app.unmount()
  document.body.innerHTML = ''
}

/** A field as a person fills it. */
export function typed(el: HTMLElement, selector: string, text: string): void {
  const input = el.querySelector<HTMLInputElement>(selector)!
  input.focus()
  input.value = text
  input.dispatchEvent(new Event('input', { bubbles: true }))
}
