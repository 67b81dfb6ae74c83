import { computed, type Ref, ref } from 'vue'

import type { Frame } from './layoutPath'

/** Zoom and pan over a fitted picture, by wheel, touch, keys or buttons. One pointer pans, two zoom. */
export function usePanZoom(base: Ref<Frame | null>, width: Ref<number>, height: Ref<number>) {
  const zoom = ref(1)
  const shift = ref({ x: 0, y: 0 })
  const frame = computed<Frame | null>(() => {
    const b = base.value
    if (!b) return null
    const cx = width.value / 2
    const cy = height.value / 2
    return {
      scale: b.scale * zoom.value,
      x: (m) => cx + (b.x(m) - cx) * zoom.value + shift.value.x,
      y: (m) => cy + (b.y(m) - cy) * zoom.value + shift.value.y,
    }
  })
  function fitAll(): void {
    zoom.value = 1
    shift.value = { x: 0, y: 0 }
  }
  function zoomBy(factor: number): void {
    zoom.value = Math.min(8, Math.max(0.5, zoom.value * factor))
  }
  function wheel(event: WheelEvent): void {
    zoomBy(event.deltaY < 0 ? 1.12 : 1 / 1.12)
  }
  const held = new Map<number, { x: number; y: number }>()
  function down(event: PointerEvent): void {
    held.set(event.pointerId, { x: event.clientX, y: event.clientY })
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  }
  function move(event: PointerEvent): void {
    const was = held.get(event.pointerId)
    if (!was) return
    const now = { x: event.clientX, y: event.clientY }
    const other = [...held.entries()].find(([id]) => id !== event.pointerId)?.[1]
    if (other) {
      const before = Math.hypot(was.x - other.x, was.y - other.y)
      if (before > 0) zoomBy(Math.hypot(now.x - other.x, now.y - other.y) / before)
    } else shift.value = { x: shift.value.x + now.x - was.x, y: shift.value.y + now.y - was.y }
    held.set(event.pointerId, now)
  }
  const up = (event: PointerEvent) => held.delete(event.pointerId)
  const STEP = 40
  const by = (x: number, y: number) => () => (shift.value = { x: shift.value.x + x, y: shift.value.y + y })
  const KEYS: Record<string, () => void> = {
    '+': () => zoomBy(1.2),
    '=': () => zoomBy(1.2),
    '-': () => zoomBy(1 / 1.2),
    '0': fitAll,
    ArrowLeft: by(STEP, 0),
    ArrowRight: by(-STEP, 0),
    ArrowUp: by(0, STEP),
    ArrowDown: by(0, -STEP),
  }
  function key(event: KeyboardEvent): void {
    const act = KEYS[event.key]
    if (!act || event.altKey || event.ctrlKey || event.metaKey) return
    event.preventDefault()
    event.stopPropagation()
    act()
  }
  const moved = computed(() => zoom.value !== 1 || shift.value.x !== 0 || shift.value.y !== 0)
  return { frame, moved, fitAll, zoomBy, wheel, down, move, up, key }
}
export type PanZoom = ReturnType<typeof usePanZoom>

/** Pixels a second that the first belt runs in the running view. */
export const PACE = 24
