<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import { inSystem } from '../settings'
import type { ConesAnswer } from '../stations/speed/useCones'

/** A pair of step cones from the side, to one scale: each step a block as high as its wheel; the belt over every step. */
const { found } = defineProps<{ found: ConesAnswer | null }>()
const frame = ref<HTMLElement>()
const { width, height } = useElementSize(frame)
const scene = computed(() => {
  const steps = found?.steps ?? []
  const centre = found?.centre_m
  if (!steps.length || !centre || width.value < 60) return null
  const top = Math.max(...steps.map((s) => s.driving_m)) / 2
  const bottom = Math.max(...steps.map((s) => s.driven_m)) / 2
  const tall = top + centre + bottom
  const small = height.value < 260
  const scale = Math.min((height.value - (small ? 40 : 120)) / tall, (width.value - 220) / (tall * 0.9))
  const step = Math.min(120, Math.max(small ? 74 : 64, (width.value - 260) / steps.length))
  const x0 = (width.value - step * steps.length) / 2
  const y1 = (small ? 22 : 46) + top * scale
  const y2 = y1 + centre * scale
  return {
    small,
    y1,
    y2,
    deep: bottom * scale,
    left: x0 - 26,
    right: x0 + step * steps.length + 26,
    steps: steps.map((s, i) => ({
      ...s,
      x: x0 + i * step,
      w: step,
      r1: (s.driving_m / 2) * scale,
      r2: (s.driven_m / 2) * scale,
    })),
  }
})
const described = computed(
  () =>
    `Step cones to scale: ${(found?.steps ?? []).map((s) => `step ${s.number}, ${inSystem(s.driving)} on ${inSystem(s.driven)}`).join('; ')}`,
)
</script>

<template>
  <div ref="frame" class="frame">
    <svg v-if="scene" :width="width" :height="height" role="img" :aria-label="described">
      <g v-for="s in scene.steps" :key="s.number">
        <rect class="driver" :x="s.x" :y="scene.y1 - s.r1" :width="s.w" :height="2 * s.r1" />
        <rect class="driven" :x="s.x" :y="scene.y2 - s.r2" :width="s.w" :height="2 * s.r2" />
        <line class="belt" :x1="s.x + s.w / 2" :x2="s.x + s.w / 2" :y1="scene.y1 - s.r1" :y2="scene.y2 + s.r2" />
        <text :x="s.x + s.w / 2" :y="scene.y1 - 8" text-anchor="middle" class="size">{{ inSystem(s.driving) }}</text>
        <text :x="s.x + s.w / 2" :y="scene.y2 - 8" text-anchor="middle" class="size">{{ inSystem(s.driven) }}</text>
        <text :x="s.x + s.w / 2" :y="(scene.y1 + scene.y2 + s.r1 - s.r2) / 2 + 4" text-anchor="middle" class="rpm">
          {{ s.speed ? inSystem(s.speed) : `${s.ratio} : 1` }}
        </text>
        <text
          v-if="s.short_m > 0.0005 && !scene.small"
          :x="s.x + s.w / 2"
          :y="scene.y2 + scene.deep + 20 + (s.number % 2) * 18"
          text-anchor="middle"
          class="slack"
        >
          ▲ {{ inSystem(s.short) }} slack
        </text>
      </g>
      <line class="axis" :x1="scene.left" :x2="scene.right" :y1="scene.y1" :y2="scene.y1" />
      <line class="axis" :x1="scene.left" :x2="scene.right" :y1="scene.y2" :y2="scene.y2" />
      <text :x="scene.left - 8" :y="scene.y1 + 5" text-anchor="end" class="who ember">DRIVER</text>
      <text :x="scene.left - 8" :y="scene.y2 + 5" text-anchor="end" class="who quench">DRIVEN</text>
    </svg>
    <div v-else class="teach">
      <h2>Two cones, one belt</h2>
      <p class="soft">
        Give the centres and the steps: the drawing appears here, to scale, with the speed of each step.
      </p>
    </div>
  </div>
</template>

<style scoped>
.frame {
  min-height: 0;
  overflow: hidden;
  position: relative;
  display: grid;
}
.driver {
  fill: var(--ember-tint);
  stroke: var(--ember);
}
.driven {
  fill: var(--quench-tint);
  stroke: var(--quench);
}
.belt {
  stroke: var(--belt);
  stroke-width: 7;
  opacity: 0.32;
}
.axis {
  stroke: var(--ink-2);
  stroke-dasharray: 14 4 3 4;
}
text {
  fill: var(--ink);
  font-size: 13.5px;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
  stroke-linejoin: round;
}
.size {
  font-weight: 640;
  font-stretch: 78%;
}
.rpm {
  font-size: 16px;
  font-weight: 640;
  font-stretch: 76%;
}
.slack,
.who.ember {
  fill: var(--ember);
}
.who {
  font-weight: 640;
  font-stretch: 76%;
}
.who.quench {
  fill: var(--quench);
}
.teach {
  place-self: center;
  max-width: 420px;
}
</style>
