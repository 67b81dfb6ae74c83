<script setup lang="ts">
import { computed } from 'vue'

import type { FloorDrive } from '../api/client'

/** The drive in small, to its own scale: the shape a person knows the machine by. */
const { drive } = defineProps<{ drive: FloorDrive }>()
const W = 84
const H = 46
const shape = computed(() => {
  const s = drive.sketch
  if (!s) return null
  const a = (s.centre_line_deg * Math.PI) / 180
  const wheels = [
    { x: 0, y: 0, r: s.driver_radius_m, c: 'e' },
    { x: s.centre_distance_m * Math.cos(a), y: -s.centre_distance_m * Math.sin(a), r: s.driven_radius_m, c: 'q' },
  ]
  const x0 = Math.min(...wheels.map((w) => w.x - w.r))
  const x1 = Math.max(...wheels.map((w) => w.x + w.r))
  const y0 = Math.min(...wheels.map((w) => w.y - w.r))
  const y1 = Math.max(...wheels.map((w) => w.y + w.r))
  const k = Math.min((W - 4) / (x1 - x0), (H - 4) / (y1 - y0))
  const placed = wheels.map((w) => ({
    c: w.c,
    r: w.r * k,
    x: W / 2 + (w.x - (x0 + x1) / 2) * k,
    y: H / 2 + (w.y - (y0 + y1) / 2) * k,
  }))
  const [d, n] = placed as [(typeof placed)[number], (typeof placed)[number]]
  const along = Math.atan2(n.y - d.y, n.x - d.x)
  const lean = Math.acos((d.r - n.r) / Math.hypot(n.x - d.x, n.y - d.y))
  const strand = (t: number) =>
    `M ${d.x + d.r * Math.cos(t)} ${d.y + d.r * Math.sin(t)} L ${n.x + n.r * Math.cos(t)} ${n.y + n.r * Math.sin(t)}`
  return { placed, strands: [strand(along + lean), strand(along - lean)] }
})
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H}`" :width="W" :height="H" aria-hidden="true">
    <template v-if="shape">
      <circle v-for="w in shape.placed" :key="w.c" :cx="w.x" :cy="w.y" :r="w.r" class="wheel" />
      <path v-for="s in shape.strands" :key="s" :d="s" class="strand" />
      <circle v-for="w in shape.placed" :key="`h${w.c}`" :cx="w.x" :cy="w.y" r="2.6" :class="w.c" />
    </template>
    <path v-else d="M30 23h24" class="none" />
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  height: auto;
}
.wheel {
  fill: var(--sheet);
  stroke: var(--belt);
  stroke-width: 2;
}
.strand {
  stroke: var(--belt);
  stroke-width: 2;
}
.e {
  fill: var(--ember);
}
.q {
  fill: var(--quench);
}
.none {
  stroke: var(--hair);
  stroke-dasharray: 3 4;
  stroke-width: 2;
}
</style>
