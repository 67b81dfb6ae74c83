<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Drawing } from '../../api/client'
import { beltLoop, type View } from '../../sheet/view'

/** Drives drawn under one another to one and the same scale. */
const { drives } = defineProps<{ drives: { key: string; name: string; drawing: Drawing }[] }>()
const frame = ref<HTMLElement>()
const { width, height } = useElementSize(frame)
const GAP = 26
const SIDE = 24

const extent = (d: Drawing) => ({
  left: Math.min(...d.wheels.map((w) => w.x_m - w.outside_radius_m)),
  right: Math.max(...d.wheels.map((w) => w.x_m + w.outside_radius_m)),
  bottom: Math.min(...d.wheels.map((w) => w.y_m - w.outside_radius_m)),
  top: Math.max(...d.wheels.map((w) => w.y_m + w.outside_radius_m)),
})
const scene = computed(() => {
  if (!drives.length || width.value < 80 || height.value < 80) return null
  const boxes = drives.map((d) => extent(d.drawing))
  const wide = Math.max(...boxes.map((b) => b.right - b.left))
  const tall = Math.max(...boxes.map((b) => b.top - b.bottom))
  // In a row, a column or a square: whichever draws them largest.
  const grids = [1, 2, 3, 4]
    .filter((c) => c <= drives.length)
    .map((columns) => {
      const rows = Math.ceil(drives.length / columns)
      const w = width.value / columns
      const h = height.value / rows
      return { columns, w, h, scale: Math.min((w - 2 * SIDE) / wide, (h - 2 * GAP) / tall) }
    })
  const best = grids.reduce((a, b) => (b.scale > a.scale ? b : a))
  return drives.map((d, n) => {
    const b = boxes[n]!
    const x0 = (n % best.columns) * best.w + (best.w - (b.right - b.left) * best.scale) / 2
    const y0 = Math.floor(n / best.columns) * best.h + (best.h - (b.top - b.bottom) * best.scale) / 2 + 6
    const view: View = {
      scale: best.scale,
      x: (m) => x0 + (m - b.left) * best.scale,
      y: (m) => y0 + (b.top - m) * best.scale,
    }
    return {
      key: d.key,
      name: d.name,
      label: { x: (n % best.columns) * best.w + best.w / 2, y: Math.floor(n / best.columns) * best.h + 17 },
      belt: beltLoop(d.drawing, view, d.drawing.back_offset_m - d.drawing.belt_height_m / 2),
      thick: Math.max(2, d.drawing.belt_height_m * best.scale),
      wheels: d.drawing.wheels.map((w) => ({
        role: w.role,
        cx: view.x(w.x_m),
        cy: view.y(w.y_m),
        r: w.outside_radius_m * best.scale,
      })),
    }
  })
})
</script>

<template>
  <div ref="frame" class="frame">
    <svg
      v-if="scene"
      :viewBox="`0 0 ${width} ${height}`"
      :width="width"
      :height="height"
      role="img"
      :aria-label="`Drawn to one scale: ${drives.map((d) => d.name).join('; ')}`"
    >
      <g v-for="d in scene" :key="d.key">
        <circle v-for="w in d.wheels" :key="w.role" :cx="w.cx" :cy="w.cy" :r="w.r" :class="w.role" />
        <circle
          v-for="w in d.wheels"
          :key="`h${w.role}`"
          :cx="w.cx"
          :cy="w.cy"
          :r="Math.max(3, w.r * 0.16)"
          class="hub"
        />
        <path :d="d.belt" class="belt" :stroke-width="d.thick" />
        <text :x="d.label.x" :y="d.label.y" text-anchor="middle">{{ d.name }}</text>
      </g>
    </svg>
    <slot v-else />
  </div>
</template>

<style scoped>
.frame {
  min-height: 0;
  min-width: 0;
  overflow: hidden;
}
svg {
  display: block;
}
circle {
  fill: var(--sheet);
  stroke: var(--quench);
  stroke-width: 1.4;
}
circle.driver {
  stroke: var(--ember);
}
circle.hub {
  fill: var(--paper);
  stroke: var(--ink-2);
}
.belt {
  fill: none;
  stroke: var(--belt);
}
text {
  font-size: 14px;
  font-weight: 640;
  font-stretch: 76%;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
</style>
