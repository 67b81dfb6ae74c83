<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Toothed } from '../../api/client'
import { inSystem, settings } from '../../settings'
import { beltShape, plateShape, rimShape } from './templatePath'

/** The likeliest candidate to scale, the next one dashed over it: a belt from the side, or chain links on a sprocket. */
const { found } = defineProps<{ found: Toothed | null }>()
const box = ref<HTMLElement>()
const { width, height } = useElementSize(box)
const first = computed(() => found?.found[0] ?? null)
const second = computed(() => found?.found[1] ?? null)
const scene = computed(() => {
  const t = first.value?.template
  if (!t || width.value < 80) return null
  const chain = !t.belt
  const long = chain ? t.pitch_m * (t.teeth + 0.9) : t.pitch_m * Math.min(t.teeth, 6)
  const low = height.value < 240 // a strip on a phone: the chain alone, large
  const tall = chain ? t.height_m * (low ? 1.3 : 3.2) : t.height_m * (low ? 1.4 : 3)
  const scale = Math.min((width.value - 90) / long, (height.value - (low ? 76 : 130)) / tall)
  const x = chain ? (width.value - t.pitch_m * t.teeth * scale) / 2 : (width.value - long * scale) / 2
  const y = chain ? (low ? 44 : 60) + (t.height_m * scale) / 2 : height.value / 2 + (t.height_m * scale) / 2
  return { scale, x, y, chain, t, pins: Array.from({ length: t.teeth + 1 }, (_, k) => x + k * t.pitch_m * scale) }
})
/** A length that reads well, drawn as a bar. */
const bar = computed(() => {
  const s = scene.value
  if (!s) return null
  const us = settings.value.system === 'us'
  const steps = us
    ? [2, 1, 0.5, 0.25, 0.125].map((i) => ({ m: i * 0.0254, text: `${i} in` }))
    : [50, 20, 10, 5, 2].map((mm) => ({ m: mm / 1000, text: `${mm} mm` }))
  const fits = steps.find((step) => step.m * s.scale < width.value * 0.3) ?? steps[steps.length - 1]!
  return { ...fits, length: fits.m * s.scale }
})
const other = computed(() => (second.value && second.value.share > 0.01 ? second.value : null))
const clip = computed(() =>
  scene.value
    ? { x: scene.value.x, w: scene.value.t.pitch_m * Math.min(scene.value.t.teeth, 6) * scene.value.scale }
    : null,
)
const alt = computed(() =>
  first.value
    ? `${first.value.name} to scale, pitch ${inSystem(first.value.sizes[0]!.expected)}${other.value ? `; ${other.value.name} dashed over it` : ''}`
    : 'Nothing measured yet',
)
</script>

<template>
  <div ref="box" class="frame">
    <svg v-if="scene" role="img" :aria-label="alt" :width="width" :height="height" :viewBox="`0 0 ${width} ${height}`">
      <template v-if="!scene.chain && clip">
        <clipPath id="part"><rect :x="clip.x" y="0" :width="clip.w" :height="height" /></clipPath>
        <g clip-path="url(#part)">
          <path :d="beltShape(scene.t, scene.scale, scene.x, scene.y)" class="belt" />
          <path v-if="other" :d="beltShape(other.template, scene.scale, scene.x, scene.y)" class="other" />
        </g>
        <g class="dim">
          <line
            :x1="scene.x + 0.5 * scene.t.pitch_m * scene.scale"
            :y1="scene.y + 22"
            :x2="scene.x + 1.5 * scene.t.pitch_m * scene.scale"
            :y2="scene.y + 22"
          />
          <text :x="scene.x + scene.t.pitch_m * scene.scale" :y="scene.y + 42" text-anchor="middle">
            pitch {{ inSystem(first!.sizes[0]!.expected) }}
          </text>
        </g>
      </template>
      <template v-else>
        <template v-for="(px, k) in scene.pins.slice(0, -1)" :key="k">
          <path v-if="k % 2 === 0" :d="plateShape(scene.t, scene.scale, px, scene.y)" class="plate" />
        </template>
        <template v-for="(px, k) in scene.pins.slice(0, -1)" :key="`outer ${k}`">
          <path v-if="k % 2 === 1" :d="plateShape(scene.t, scene.scale, px, scene.y)" class="plate outer" />
        </template>
        <template v-for="px in scene.pins" :key="`pin ${px}`">
          <circle
            v-if="scene.t.roller_m"
            :cx="px"
            :cy="scene.y"
            :r="(scene.t.roller_m * scene.scale) / 2"
            class="roller"
          />
          <circle
            v-if="other?.template.roller_m"
            :cx="px"
            :cy="scene.y"
            :r="(other.template.roller_m * scene.scale) / 2"
            class="other"
          />
          <circle v-if="scene.t.pin_m" :cx="px" :cy="scene.y" :r="(scene.t.pin_m * scene.scale) / 2" class="pin" />
        </template>
        <path :d="rimShape(scene.t, scene.scale, scene.pins[2]!, scene.y, 3)" class="rim" />
        <g class="dim">
          <line :x1="scene.pins[1]" y1="34" :x2="scene.pins[2]" y2="34" />
          <text :x="(scene.pins[1]! + scene.pins[2]!) / 2" y="26" text-anchor="middle">
            pitch {{ inSystem(first!.sizes[0]!.expected) }}
          </text>
        </g>
      </template>
      <g v-if="bar" class="dim" :transform="`translate(24 ${height - 26})`">
        <line x1="0" y1="0" :x2="bar.length" y2="0" />
        <text x="0" y="-8">{{ bar.text }}</text>
      </g>
    </svg>
    <div v-else class="empty">
      <p>
        Measure over ten or more and count the steps: the likeliest stands here to scale, with what it is mixed up with
        dashed over it.
      </p>
    </div>
    <p v-if="first" class="names">
      <b>{{ first.name }}</b>
      <span v-if="other" class="soft">dashed: {{ other.name }}</span>
    </p>
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  height: 100%;
  min-height: 0;
  overflow: hidden;
  background:
    linear-gradient(var(--grid) 1px, transparent 1px) 0 0 / 28px 28px,
    linear-gradient(90deg, var(--grid) 1px, transparent 1px) 0 0 / 28px 28px;
}
svg {
  display: block;
  font-family: var(--font);
  font-stretch: 80%;
}
.belt {
  fill: var(--belt);
  fill-opacity: 0.9;
}
.other {
  fill: none;
  stroke: var(--ember);
  stroke-width: 1.8;
  stroke-dasharray: 6 4;
}
.rim {
  fill: none;
  stroke: var(--quench);
  stroke-width: 2;
}
.plate {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.4;
}
.plate.outer {
  fill-opacity: 0.72;
}
.roller {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}
.pin {
  fill: var(--hair);
  stroke: var(--ink-2);
}
.dim line {
  stroke: var(--ink-2);
  stroke-width: 1.4;
}
.dim text {
  fill: var(--ink);
  font-size: 14px;
}
.names {
  position: absolute;
  right: 14px;
  bottom: 8px;
  margin: 0;
  background: var(--paper);
  padding: 2px 6px;
  display: flex;
  gap: 10px;
  font-size: 18px;
  font-stretch: 76%;
}
.empty {
  height: 100%;
  display: grid;
  place-items: center;
  padding: 24px;
  max-width: 46ch;
  margin: 0 auto;
}
</style>
