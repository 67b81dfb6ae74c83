<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { MadeAnswer } from '../stations/speed/useMade'

/** A sheave to make, in section, to scale: the upper half and its mirror below the shaft's axis. */
const { found } = defineProps<{ found: MadeAnswer | null }>()
const frame = ref<HTMLElement>()
const { width, height } = useElementSize(frame)
const scene = computed(() => {
  const outside = found?.outside_m
  const face = found?.face_m
  if (!found?.profile.length || !outside || !face || width.value < 60) return null
  const scale = Math.min((height.value - 90) / outside, (width.value - 320) / face, 6000)
  const x = (m: number) => (width.value - face * scale) / 2 + m * scale
  const middle = height.value / 2
  const half = (sign: 1 | -1) =>
    `${found.profile.map(([a = 0, b = 0], i) => `${i ? 'L' : 'M'}${x(a).toFixed(2)} ${(middle - sign * b * scale).toFixed(2)}`).join(' ')} Z`
  return {
    upper: half(1),
    lower: half(-1),
    middle,
    left: x(0),
    right: x(face),
    top: middle - (outside / 2) * scale,
    bottom: middle + (outside / 2) * scale,
  }
})
const size = (name: string) => found?.sizes.find((s) => s.name.startsWith(name))?.value ?? ''
</script>

<template>
  <div ref="frame" class="frame">
    <svg
      v-if="scene"
      :width="width"
      :height="height"
      role="img"
      :aria-label="`Sheave in section, to scale: outside ${size('Finished')}, face ${size('Face')}`"
    >
      <path :d="scene.upper" />
      <path :d="scene.lower" />
      <line class="axis" :x1="scene.left - 40" :x2="scene.right + 40" :y1="scene.middle" :y2="scene.middle" />
      <line class="dim" :x1="scene.left - 22" :x2="scene.left - 22" :y1="scene.top" :y2="scene.bottom" />
      <line class="dim" :x1="scene.left - 30" :x2="scene.left - 4" :y1="scene.top" :y2="scene.top" />
      <line class="dim" :x1="scene.left - 30" :x2="scene.left - 4" :y1="scene.bottom" :y2="scene.bottom" />
      <text :x="scene.left - 32" :y="scene.middle - 6" text-anchor="end">{{ size('Finished') }}</text>
      <line class="dim" :x1="scene.left" :x2="scene.right" :y1="scene.top - 16" :y2="scene.top - 16" />
      <text :x="(scene.left + scene.right) / 2" :y="scene.top - 22" text-anchor="middle">{{ size('Face') }}</text>
      <text :x="scene.right + 14" :y="scene.top + 16">groove {{ size('Groove angle') }}</text>
      <text :x="scene.right + 14" :y="scene.top + 34">{{ size('Groove depth') }} deep</text>
    </svg>
    <div v-else class="teach">
      <h2>A wheel of your own</h2>
      <p class="soft">Choose the section and the diameter: its section appears here, to scale.</p>
    </div>
  </div>
</template>

<style scoped>
.frame {
  min-height: 0;
  overflow: hidden;
  display: grid;
}
path {
  fill: var(--hair-2);
  stroke: var(--ink);
  stroke-width: 1.2;
}
.axis {
  stroke: var(--ember);
  stroke-dasharray: 14 4 3 4;
}
.dim {
  stroke: var(--ink-2);
  stroke-width: 1;
}
text {
  fill: var(--ink);
  font-size: 13.5px;
  font-weight: 560;
  font-stretch: 80%;
}
.teach {
  place-self: center;
  max-width: 420px;
}
</style>
