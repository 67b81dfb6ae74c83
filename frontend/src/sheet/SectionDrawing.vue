<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { FindForm, Identified } from '../api/client'
import { inSystem, say } from '../settings'
import { beltPath, bottomWidth, rimPath } from './beltShape'
import StepLabel from './StepLabel.vue'

/** The belt (or the wheel) in section, to scale, with the dimensions to take numbered in order and ticked off when done. */
const { identified, form, focus } = defineProps<{ identified: Identified | null; form: FindForm; focus: string }>()

const frame = ref<HTMLElement>()
const { width, height } = useElementSize(frame)
const answer = computed(() => identified?.answer)
const first = computed(() => answer.value?.candidates[0])
const second = computed(() =>
  answer.value?.candidates.find(
    (c) =>
      first.value &&
      c.share > 0.02 &&
      (Math.abs(c.height_m / first.value.height_m - 1) > 0.06 ||
        Math.abs(c.top_width_m / first.value.top_width_m - 1) > 0.06),
  ),
)
const WHEEL = [
  'groove_width',
  'wheel_diameter',
  'groove_depth',
  'groove_spacing',
  'groove_angle',
  'marks',
  'bore',
  'key_width',
  'hub_large_end',
]
const BELT = ['top_width', 'thickness', 'outside_length', 'label']
const wheel = computed(() => {
  if (WHEEL.includes(focus)) return true
  if (focus && !WHEEL.includes(focus)) return false
  return (
    ['groove_width', 'groove_depth', 'groove_spacing'].some((k) => typed(k)) &&
    !typed('top_width') &&
    !typed('thickness')
  )
})
function typed(key: string): string {
  const entry = form.quantities[key as 'top_width']
  return (entry ? entry.text : form.words[key as 'label']) ?? ''
}
function value(key: string): string {
  const note = identified?.notes[key]
  return note ? inSystem(note).replace(/ \(about.*\)/, '') : typed(key)
}
const order = computed(() => (wheel.value ? WHEEL.slice(0, 4) : BELT))
/** The first not taken yet, or the one the server asks for. */
const due = computed(() => {
  const asked = answer.value?.next?.field
  return asked && order.value.includes(asked) ? asked : (order.value.find((k) => !typed(k)) ?? '')
})
const state = (key: string) => (typed(key) ? 'done' : key === due.value || key === focus ? 'next' : 'later')

// A belt of middling size stands in until a candidate is known.
const STANDIN = { top_width_m: 0.0165, height_m: 0.0105, angle_rad: 0.698, construction: 'wrapped' }
const narrow = computed(() => width.value < 560 || height.value < 240)
const scene = computed(() => {
  if (width.value < 60 || height.value < 60) return null
  const small = narrow.value
  const shown = first.value ?? STANDIN
  const ghost = second.value
  const ribs = shown.construction === 'ribbed' ? 4 : form.words.construction === 'joined' ? 3 : 1
  const widest = Math.max(shown.top_width_m * (ribs > 1 ? ribs * 1.12 : 1), ghost?.top_width_m ?? 0)
  const deepest = Math.max(shown.height_m, ghost?.height_m ?? 0)
  const room = { w: width.value * (small ? 0.36 : 0.42), h: height.value - (small ? 92 : 170) }
  const scale = Math.min(room.w / widest, room.h / deepest)
  const cx = small ? width.value * 0.3 : width.value * 0.32
  const top = small ? 52 : 92
  const outline = { width: shown.top_width_m * scale, height: shown.height_m * scale, angle: shown.angle_rad }
  const reach = ribs > 1 ? (outline.width * (1.12 * (ribs - 1) + 1)) / 2 : outline.width / 2
  const groove = { width: outline.width * 0.99, height: outline.height * 1.3, angle: outline.angle * 0.9 }
  return {
    scale,
    cx,
    top,
    outline,
    reach,
    groove,
    belt: beltPath(outline, shown.construction, cx, top, ribs),
    cogs: shown.construction === 'cogged' ? outline.height * 0.22 : 0,
    low: bottomWidth(outline),
    rim: rimPath(groove, cx, top, outline.width * 1.05, groove.height * 1.35),
    ghost: ghost
      ? beltPath(
          { width: ghost.top_width_m * scale, height: ghost.height_m * scale, angle: ghost.angle_rad },
          ghost.construction,
          cx,
          top,
        )
      : '',
    loop: {
      x: width.value * (small ? 0.79 : 0.76),
      y: top + (small ? 30 : 34),
      rx: width.value * (small ? 0.13 : 0.12),
      ry: small ? 20 : 36,
    },
  }
})
const TITLES: Record<string, string> = {
  top_width: 'top width',
  thickness: 'thickness',
  outside_length: 'outside',
  label: 'label',
  groove_width: 'groove top width',
  wheel_diameter: 'outside diameter',
  groove_depth: 'depth',
  groove_spacing: 'groove to groove',
}
const words = (key: string) => (typed(key) ? value(key) : TITLES[key]!)
const caption = computed(() => {
  if (wheel.value) return 'A groove in section'
  const a = first.value
  if (!a || !(answer.value?.candidates.length ?? 0)) return 'Not to any scale yet: measure the top width'
  return `Drawn: ${a.section}${second.value ? `; dashed: ${second.value.section}` : ''}`
})
/** A bar for the eye: half an inch or ten millimetres. */
const bar = computed(() => {
  if (!scene.value || !first.value) return null
  const us = inSystem({ us: '1/2 in', si: '10 mm' })
  return { label: us, length: (us === '10 mm' ? 0.01 : 0.0127) * scene.value.scale }
})
const alt = computed(
  () =>
    `${wheel.value ? 'A groove' : 'A belt'} in section. To measure, in order: ` +
    order.value.map((k, i) => `${i + 1} ${TITLES[k]}${typed(k) ? `, done: ${value(k)}` : ''}`).join('; '),
)
</script>

<template>
  <div ref="frame" class="frame">
    <svg
      v-if="scene"
      role="img"
      :aria-label="say(alt)"
      :viewBox="`0 0 ${width} ${height}`"
      :width="width"
      :height="height"
    >
      <path v-if="wheel" :d="scene.rim" class="metal" />
      <path v-if="!wheel" :d="scene.belt" class="belt" :class="{ standin: !first }" />
      <path
        v-if="!wheel && scene.cogs"
        class="cogs"
        :d="
          Array.from(
            { length: 5 },
            (_, i) =>
              `M ${scene!.cx - scene!.low / 2 + (scene!.low * (i + 0.5)) / 5} ${scene!.top + scene!.outline.height} v ${-scene!.cogs}`,
          ).join(' ')
        "
      />
      <path
        v-if="!wheel && first"
        class="cord"
        :d="`M ${scene.cx - scene.reach * 0.86} ${scene.top + scene.outline.height * 0.26} H ${scene.cx + scene.reach * 0.86}`"
      />
      <path v-if="!wheel && scene.ghost" :d="scene.ghost" class="ghost" />
      <!-- 1: across the top -->
      <g :class="state(order[0]!)">
        <path
          class="dim"
          :d="`M ${scene.cx - scene.reach} ${scene.top - 6} V ${scene.top - 26} M ${scene.cx + scene.reach} ${scene.top - 6} V ${scene.top - 26} M ${scene.cx - scene.reach} ${scene.top - 18} H ${scene.cx + scene.reach}`"
        />
        <g :transform="`translate(${scene.cx} ${scene.top - 34})`">
          <StepLabel :number="1" :done="Boolean(typed(order[0]!))" :words="words(order[0]!)" />
        </g>
      </g>
      <!-- 2: down the side -->
      <g v-if="!wheel" :class="state('thickness')">
        <path
          class="dim"
          :d="`M ${scene.cx + scene.reach + 6} ${scene.top} h 22 M ${scene.cx + scene.low / 2 + 6} ${scene.top + scene.outline.height} H ${scene.cx + scene.reach + 28} M ${scene.cx + scene.reach + 20} ${scene.top} v ${scene.outline.height}`"
        />
        <g
          :transform="
            narrow
              ? `translate(${scene.cx - 24} ${scene.top + scene.outline.height + 24})`
              : `translate(${scene.cx + scene.reach + 40} ${scene.top + scene.outline.height * 0.7})`
          "
        >
          <StepLabel :number="2" :done="Boolean(typed('thickness'))" :words="words('thickness')" />
        </g>
      </g>
      <g v-else :class="state('groove_depth')">
        <path class="dim" :d="`M ${scene.cx} ${scene.top} v ${scene.groove.height}`" />
        <g :transform="`translate(${scene.cx - 30} ${scene.top + scene.groove.height + 22})`">
          <StepLabel :number="3" :done="Boolean(typed('groove_depth'))" :words="words('groove_depth')" />
        </g>
      </g>
      <!-- 3 and 4: the loop and its label, or the wheel -->
      <template v-if="!wheel">
        <g :class="state('outside_length')">
          <ellipse :cx="scene.loop.x" :cy="scene.loop.y" :rx="scene.loop.rx" :ry="scene.loop.ry" class="loop" />
          <ellipse
            :cx="scene.loop.x"
            :cy="scene.loop.y"
            :rx="scene.loop.rx + 8"
            :ry="scene.loop.ry + 8"
            class="dim tape"
          />
          <g :transform="`translate(${scene.loop.x - 20} ${scene.loop.y + scene.loop.ry + 30})`">
            <StepLabel
              :number="3"
              :done="Boolean(typed('outside_length'))"
              :words="words('outside_length')"
              :at="-14"
            />
          </g>
        </g>
        <g :class="state('label')">
          <g :transform="`translate(${scene.loop.x} ${scene.loop.y - scene.loop.ry - 18})`">
            <StepLabel :number="4" :done="Boolean(typed('label'))" :words="words('label')" :at="-34" />
          </g>
        </g>
      </template>
      <g v-else>
        <circle :cx="scene.loop.x" :cy="scene.loop.y + 6" :r="scene.loop.ry + 10" class="loop" />
        <circle :cx="scene.loop.x" :cy="scene.loop.y + 6" :r="scene.loop.ry * 0.3" class="loop" />
        <g :class="state('wheel_diameter')">
          <path
            class="dim"
            :d="`M ${scene.loop.x - scene.loop.ry - 10} ${scene.loop.y + 6} h ${scene.loop.ry * 2 + 20}`"
          />
          <g :transform="`translate(${scene.loop.x - 30} ${scene.loop.y + scene.loop.ry + 40})`">
            <StepLabel
              :number="2"
              :done="Boolean(typed('wheel_diameter'))"
              :words="words('wheel_diameter')"
              :at="-14"
            />
          </g>
        </g>
        <g
          v-if="!narrow"
          :class="state('groove_spacing')"
          :transform="`translate(${scene.loop.x - 30} ${scene.loop.y + scene.loop.ry + 68})`"
        >
          <StepLabel :number="4" :done="Boolean(typed('groove_spacing'))" :words="words('groove_spacing')" :at="-14" />
        </g>
      </g>
      <g v-if="bar && !narrow && !wheel" :transform="`translate(22 ${height - 26})`">
        <path class="dim" :d="`M 0 0 h ${bar.length} M 0 -4 v 8 M ${bar.length} -4 v 8`" />
        <text :x="bar.length + 8" y="4" class="t soft">{{ bar.label }}</text>
      </g>
      <text v-if="!narrow" :x="width - 18" :y="height - 22" text-anchor="end" class="t soft">{{ caption }}</text>
    </svg>
  </div>
</template>

<style src="./section.css" scoped></style>
