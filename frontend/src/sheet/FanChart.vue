<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import { inSystem } from '../settings'
import type { MachineAnswer } from '../stations/speed/useMachine'

/** The fan's curve now and at the new speed against its ducts, with the points where they meet. */
const { felt } = defineProps<{ felt: MachineAnswer }>()
const frame = ref<HTMLElement>()
const { width, height } = useElementSize(frame)
const PAD = { left: 30, right: 40, top: 44, bottom: 54 }
const scene = computed(() => {
  if (width.value < 80) return null
  const curves = felt.curves.map((c) => ({ what: c.what, points: c.points.map(([q = 0, p = 0]) => [q, p] as const) }))
  const all = curves.flatMap((c) => c.points)
  const most = Math.max(...all.map((p) => p[0])) || 1
  const high = Math.max(...all.map((p) => p[1]), ...felt.points.map((p) => p.pressure_pa)) || 1
  const fans = curves.filter((c) => c.what !== 'ducts').flatMap((c) => c.points.map((p) => p[1]))
  const tall = Math.min(high, Math.max(...fans) * 1.25)
  const x = (q: number) => PAD.left + (q / most) * (width.value - PAD.left - PAD.right)
  const y = (p: number) => height.value - PAD.bottom - (p / tall) * (height.value - PAD.top - PAD.bottom)
  return {
    base: y(0),
    left: x(0),
    right: x(most),
    lines: curves.map((c) => ({
      what: c.what,
      path: c.points
        .filter((p) => p[1] <= tall)
        .map((p, i) => `${i ? 'L' : 'M'}${x(p[0]).toFixed(1)} ${y(p[1]).toFixed(1)}`)
        .join(' '),
      end: c.points.filter((p) => p[1] <= tall).at(-1),
    })),
    points: felt.points.map((p, i) => ({ ...p, x: x(p.flow_m3_per_s), y: y(p.pressure_pa), then: i === 1 })),
    x,
    y,
  }
})
const NAMES: Record<string, string> = { 'fan now': 'fan now', 'fan then': 'fan then', ducts: 'ducts' }
const described = computed(
  () =>
    `The fan's curve against its ducts: ${felt.points.map((p, i) => `${i ? 'then' : 'now'} ${inSystem(p.flow)} at ${inSystem(p.pressure)}`).join(', ')}`,
)
</script>

<template>
  <div ref="frame" class="frame">
    <svg v-if="scene" :width="width" :height="height" role="img" :aria-label="described">
      <line class="axis" :x1="scene.left" :x2="scene.right" :y1="scene.base" :y2="scene.base" />
      <line class="axis" :x1="scene.left" :x2="scene.left" :y1="scene.base" y2="30" />
      <text :x="scene.right" :y="scene.base + 34" text-anchor="end" class="soft">flow →</text>
      <text :x="scene.left + 6" y="26" class="soft">static pressure ↑</text>
      <g v-for="l in scene.lines" :key="l.what">
        <path :d="l.path" :class="l.what.replace(' ', '-')" />
        <text
          v-if="l.end"
          :x="Math.min(scene.x(l.end[0]), scene.right - 8)"
          :y="scene.y(l.end[1]) - 8"
          text-anchor="end"
          class="soft"
        >
          {{ NAMES[l.what] }}
        </text>
      </g>
      <g v-for="p in scene.points" :key="p.x">
        <line class="drop" :x1="p.x" :x2="p.x" :y1="p.y" :y2="scene.base" />
        <circle :cx="p.x" :cy="p.y" r="6" :class="{ then: p.then }" />
        <text :x="p.x + (p.then ? 10 : -10)" :y="p.y - 22" :text-anchor="p.then ? 'start' : 'end'" class="at">
          {{ inSystem(p.flow) }}
        </text>
        <text :x="p.x + (p.then ? 10 : -10)" :y="p.y - 7" :text-anchor="p.then ? 'start' : 'end'" class="soft">
          {{ inSystem(p.pressure) }}, {{ p.then ? 'then' : 'now' }}
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.frame {
  min-height: 0;
  overflow: hidden;
}
path {
  fill: none;
  stroke-width: 2;
}
.fan-now {
  stroke: var(--quench);
}
.fan-then {
  stroke: var(--ember);
  stroke-dasharray: 9 5;
}
.ducts {
  stroke: var(--ink-2);
}
.axis {
  stroke: var(--ink-2);
}
.drop {
  stroke: var(--hair);
}
circle {
  fill: var(--quench);
}
circle.then {
  fill: none;
  stroke: var(--ember);
  stroke-width: 3;
}
text {
  font-size: 13.5px;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
text.soft {
  fill: var(--ink-2);
}
.at {
  font-size: 17px;
  font-weight: 640;
  font-stretch: 76%;
}
</style>
