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
  const x0 = Math.min(...s.wheels.map((w) => w.x_m - w.radius_m))
  const x1 = Math.max(...s.wheels.map((w) => w.x_m + w.radius_m))
  const y0 = Math.min(...s.wheels.map((w) => w.y_m - w.radius_m))
  const y1 = Math.max(...s.wheels.map((w) => w.y_m + w.radius_m))
  const k = Math.min((W - 4) / (x1 - x0), (H - 4) / (y1 - y0))
  const x = (m: number) => W / 2 + (m - (x0 + x1) / 2) * k
  const y = (m: number) => H / 2 - (m - (y0 + y1) / 2) * k
  return {
    wheels: s.wheels.map((w, i) => ({ x: x(w.x_m), y: y(w.y_m), r: w.radius_m * k, role: i ? 'q' : 'e' })),
    strands: s.strands.map((t) => ({ x1: x(t.x1_m), y1: y(t.y1_m), x2: x(t.x2_m), y2: y(t.y2_m) })),
  }
})
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H}`" :width="W" :height="H" aria-hidden="true">
    <template v-if="shape">
      <circle v-for="(w, i) in shape.wheels" :key="i" :cx="w.x" :cy="w.y" :r="w.r" class="wheel" />
      <line v-for="(s, i) in shape.strands" :key="i" v-bind="s" class="strand" />
      <circle v-for="(w, i) in shape.wheels" :key="`h${i}`" :cx="w.x" :cy="w.y" r="2.6" :class="w.role" />
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
