import { type Ref, watch } from 'vue'

import type { Held } from './layoutEdit'
import type { Frame } from './layoutPath'

/** Moving a thing in the drawing by pointer or arrow keys; it is put down on release, or when it loses the focus. */
export function useHeld(
  frame: Ref<Frame | null>,
  held: Ref<Held | null>,
  emit: { hold: (held: Held) => void; drop: () => void },
) {
  let from: { x: number; y: number; at: Held } | null = null
  const metres = (pixels: number) => pixels / (frame.value?.scale ?? 1)
  function down(event: PointerEvent, at: Held): void {
    event.stopPropagation()
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    from = { x: event.clientX, y: event.clientY, at }
  }
  function move(event: PointerEvent): void {
    if (!from) return
    event.stopPropagation()
    const { at } = from
    const dx = metres(event.clientX - from.x)
    const dy = metres(from.y - event.clientY)
    if (held.value || Math.hypot(event.clientX - from.x, event.clientY - from.y) > 3)
      emit.hold({ ...at, x_m: at.x_m + dx, y_m: at.y_m + dy })
  }
  function up(event: PointerEvent): void {
    if (!from) return
    event.stopPropagation()
    from = null
    if (held.value) emit.drop()
  }
  const WAYS: Record<string, [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, 1],
    ArrowDown: [0, -1],
  }
  /** Arrows move by a centimetre, with Shift by a millimetre. Escape lets go where it was. */
  function key(event: KeyboardEvent, at: Held): void {
    if (event.key === 'Enter' && held.value) {
      event.preventDefault()
      emit.drop()
    }
    const way = WAYS[event.key]
    if (!way) return
    event.preventDefault()
    event.stopPropagation()
    const step = event.shiftKey ? 0.001 : 0.01
    const now = held.value ?? at
    emit.hold({ ...now, x_m: now.x_m + way[0] * step, y_m: now.y_m + way[1] * step })
  }
  const left = () => held.value && emit.drop()
  watch(frame, (f) => f ?? (from = null))
  return { down, move, up, key, left }
}
