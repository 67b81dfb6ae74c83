/** Enter moves on: the next entry of the panel that can be seen takes the focus. */
export function focusNext(from: EventTarget | null): void {
  const here = from as HTMLElement | null
  const all = [...(here?.closest('[data-panel]')?.querySelectorAll<HTMLElement>('[data-entry]') ?? [])]
  const seen = all.filter((entry) => entry.offsetParent !== null)
  seen[seen.indexOf(here!) + 1]?.focus()
}
