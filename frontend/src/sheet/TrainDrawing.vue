<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import { inSystem } from '../settings'
import type { UnknownAnswer } from '../stations/speed/useUnknown'

/** A train of wheels in a row: wheels to one scale, centres not; each shaft with its speed. */
const { found } = defineProps<{ found: UnknownAnswer | null }>()
const frame = ref<HTMLElement>()
const { width, height } = useElementSize(frame)
const scene = computed(() => {
  const wheels = found?.wheels ?? []
  if (!wheels.length || !found || width.value < 60) return null
  const shafts = found.shafts.map((s, k) => ({
    ...s,
    driven: wheels.find((w) => w.stage === k && w.role === 'driven'),
    driving: wheels.find((w) => w.stage === k + 1 && w.role === 'driving'),
  }))
  const reach = shafts.map((s) => Math.max(s.driven?.size ?? 0, s.driving?.size ?? 0) / 2)
  const total = reach.reduce((a, b) => a + 2 * b, 0)
  const gaps = shafts.length + 1
  const scale = Math.min((width.value - 60 * gaps) / total, (height.value - 150) / (2 * Math.max(...reach)))
  let x = (width.value - total * scale - 60 * (shafts.length - 1)) / 2
  const y = height.value / 2 - 10
  const placed = shafts.map((s, k) => {
    x += reach[k]! * scale
    const at = {
      ...s,
      x,
      y,
      out: reach[k]! * scale,
      r1: ((s.driven?.size ?? 0) / 2) * scale,
      r2: ((s.driving?.size ?? 0) / 2) * scale,
    }
    x += reach[k]! * scale + 60
    return at
  })
  const belts = placed.slice(1).flatMap((b, k) => {
    const a = placed[k]!
    if (!a.r2 || !b.r1) return []
    const lean = Math.asin((b.r1 - a.r2) / (b.x - a.x))
    return [1, -1].map((side) => ({
      x1: a.x - a.r2 * Math.sin(lean),
      y1: y - side * a.r2 * Math.cos(lean),
      x2: b.x - b.r1 * Math.sin(lean),
      y2: y - side * b.r1 * Math.cos(lean),
    }))
  })
  return { placed, belts }
})
const described = computed(
  () => `A train of wheels: ${(found?.shafts ?? []).map((s, k) => `shaft ${k + 1} turns ${inSystem(s)}`).join(', ')}`,
)
</script>

<template>
  <div ref="frame" class="frame">
    <svg v-if="scene" :width="width" :height="height" role="img" :aria-label="described">
      <line v-for="(b, k) in scene.belts" :key="`b${k}`" class="belt" v-bind="b" />
      <g v-for="(s, k) in scene.placed" :key="k">
        <circle v-if="s.r1" class="driven" :class="{ found: s.driven!.found }" :cx="s.x" :cy="s.y" :r="s.r1" />
        <circle v-if="s.r2" class="driving" :class="{ found: s.driving!.found }" :cx="s.x" :cy="s.y" :r="s.r2" />
        <circle class="bore" :cx="s.x" :cy="s.y" r="4" />
        <text :x="s.x" :y="s.y - s.out - 30" text-anchor="middle" class="rpm" :class="{ ember: s.found }">
          {{ inSystem(s) }}
        </text>
        <text v-if="s.driven" :x="s.x" :y="s.y + s.out + 24" text-anchor="middle" :class="{ ember: s.driven.found }">
          {{ inSystem(s.driven) }}
          <tspan v-if="s.driven.rim_us" class="soft">
            , rim {{ inSystem({ us: s.driven.rim_us, si: s.driven.rim_si }) }}
          </tspan>
        </text>
        <text
          v-if="s.driving"
          :x="s.x"
          :y="s.y + s.out + (s.driven ? 44 : 24)"
          text-anchor="middle"
          :class="{ ember: s.driving.found }"
        >
          {{ inSystem(s.driving) }}
          <tspan v-if="s.driving.rim_us" class="soft">
            , rim {{ inSystem({ us: s.driving.rim_us, si: s.driving.rim_si }) }}
          </tspan>
        </text>
      </g>
      <text x="16" :y="height - 14" class="soft">Wheels to one scale; the centres are not.</text>
    </svg>
    <div v-else class="teach">
      <h2>Leave one thing out</h2>
      <p class="soft">
        Give the rest: a speed, the wheels, a ratio. The drawing appears here with every shaft's speed.
      </p>
    </div>
  </div>
</template>

<style scoped>
.frame {
  min-height: 0;
  overflow: hidden;
  display: grid;
}
.belt {
  stroke: var(--belt);
  stroke-width: 4;
}
circle {
  fill: none;
  stroke-width: 2;
}
.driving {
  stroke: var(--ember);
}
.driven {
  stroke: var(--quench);
}
.found {
  stroke-dasharray: 8 4;
}
.bore {
  fill: var(--ink-2);
}
text {
  fill: var(--ink);
  font-size: 14px;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 5px;
  stroke-linejoin: round;
}
.soft {
  fill: var(--ink-2);
}
.ember {
  fill: var(--ember);
}
.rpm {
  font-size: 20px;
  font-weight: 640;
  font-stretch: 76%;
}
.teach {
  place-self: center;
  max-width: 420px;
}
</style>
