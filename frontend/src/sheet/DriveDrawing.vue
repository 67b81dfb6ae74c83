<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { type ComponentPublicInstance, computed, ref } from 'vue'

import { marksOf } from '../open/seenMarks'
import SeenMarks from '../open/SeenMarks.vue'
import { say } from '../settings'
import DrawingFrame from './DrawingFrame.vue'
import { useDriveLabels } from './driveLabels'
import { type DriveDrawn, PUSH_DRAWN, useDriveScene } from './driveScene'

/** The drive to scale. Each station asks another question of it and so draws other dimensions over it. */
const props = defineProps<DriveDrawn>()
const frame = ref<ComponentPublicInstance>()
const running = ref(false)
const { width, height } = useElementSize(frame)
const drawn = useDriveScene(props, width, height)
const { narrow, focusWheel, shown, scene, dimensions, push, pulls, hand } = drawn
const labels = useDriveLabels(props, drawn, width, height)

const described = computed(() => {
  if (!props.drawing) return 'No props.drawing yet'
  const tight = props.drawing.spans[0]?.tight ? 'upper' : 'lower'
  return say(
    `The drive to scale: driver sheave ${shown('driver_outside')}, driven sheave ${shown('driven_outside')}, centres ${shown('centre_distance')}; the ${tight} strand pulls.`,
  )
})
/** A wheel's mark stands off its hub; the belt's on the strand that hangs slack. */
const seen = computed(() =>
  marksOf(props.findings ?? [], (place) => {
    const wheel = scene.value?.wheels.find((w) => w.role === place)
    if (wheel) return { x: wheel.cx - wheel.r * 0.45, y: wheel.cy + wheel.r * 0.45 }
    const span = scene.value?.spans.find((s) => s.tight === (place === 'tight strand'))
    return span ? { x: span.x1 + (span.x2 - span.x1) * 0.3, y: span.y1 + (span.y2 - span.y1) * 0.3 } : null
  }),
)
const spin = (w: { period: number; cx: number; cy: number }) => ({
  animationDuration: `${w.period}s`,
  transformOrigin: `${w.cx}px ${w.cy}px`,
})
const arms = (r: number) => (r > 46 ? (r > 90 ? 6 : 5) : 0)
</script>

<template>
  <DrawingFrame
    ref="frame"
    v-model:running="running"
    :view="hand"
    :drawn="scene !== null"
    :label="described"
    :narrow="narrow"
    :width="width"
    :height="height"
    :class="{ dimmed }"
  >
    <template v-if="scene">
      <defs>
        <pattern
          id="grid"
          :width="scene.grid.metres * scene.view.scale"
          :height="scene.grid.metres * scene.view.scale"
          patternUnits="userSpaceOnUse"
          :x="scene.wheels[0]!.cx"
          :y="scene.wheels[0]!.cy"
        >
          <path
            :d="`M ${scene.grid.metres * scene.view.scale} 0 H 0 V ${scene.grid.metres * scene.view.scale}`"
            class="grid"
          />
        </pattern>
      </defs>
      <rect :width="width" :height="height" fill="url(#grid)" />
      <g v-for="w in scene.wheels" :key="w.role" :class="w.role">
        <circle :cx="w.cx" :cy="w.cy" :r="w.r" class="rim" />
        <circle
          v-if="w.r > 24"
          :cx="w.cx"
          :cy="w.cy"
          :r="Math.max(w.r * 0.8, w.r - scene.thickness * 1.9)"
          class="hairline"
        />
        <g :class="{ spin: running, back: !drawing?.clockwise }" :style="spin(w)">
          <path
            v-for="n in arms(w.r)"
            :key="n"
            class="arm"
            :d="`M ${w.cx + w.hub * Math.cos((n * 2 * Math.PI) / arms(w.r))} ${w.cy + w.hub * Math.sin((n * 2 * Math.PI) / arms(w.r))} L ${w.cx + Math.max(w.r * 0.8, w.r - scene.thickness * 1.9) * Math.cos((n * 2 * Math.PI) / arms(w.r))} ${w.cy + Math.max(w.r * 0.8, w.r - scene.thickness * 1.9) * Math.sin((n * 2 * Math.PI) / arms(w.r))}`"
          />
        </g>
        <circle :cx="w.cx" :cy="w.cy" :r="w.hub" class="hub" />
        <circle :cx="w.cx" :cy="w.cy" :r="w.bore" class="bore" />
        <path class="turn" :d="w.turn.arc" />
        <path class="turn" :d="w.turn.head" />
      </g>
      <path :d="scene.belt" class="belt" :stroke-width="scene.thickness" />
      <path
        v-if="scene.thickness > 5 || running"
        :d="scene.cord"
        class="cord"
        :class="{ runs: running, back: !drawing?.clockwise }"
      />
      <circle v-for="w in scene.wheels" :key="`d-${w.role}`" :cx="w.cx" :cy="w.cy" :r="w.datum" class="datum" />
      <g v-if="!focusWheel">
        <template v-for="(s, i) in scene.spans" :key="i">
          <line
            v-if="s.tight"
            class="pull"
            :x1="s.x2 - s.nx * (scene.thickness / 2 + 6) + (s.x1 - s.x2) * 0.06"
            :y1="s.y2 - s.ny * (scene.thickness / 2 + 6) + (s.y1 - s.y2) * 0.06"
            :x2="s.x1 - s.nx * (scene.thickness / 2 + 6) + (s.x2 - s.x1) * 0.06"
            :y2="s.y1 - s.ny * (scene.thickness / 2 + 6) + (s.y2 - s.y1) * 0.06"
            marker-end="url(#arrow)"
          />
        </template>
      </g>
      <template v-if="push">
        <path :d="push.path" class="pushed" />
        <line
          :x1="push.tail.x"
          :y1="push.tail.y"
          :x2="push.mx + push.span.nx * (scene.thickness / 2 + 2)"
          :y2="push.my + push.span.ny * (scene.thickness / 2 + 2)"
          class="force"
          marker-end="url(#arrow)"
        />
      </template>
      <line
        v-for="p in pulls"
        :key="`p-${p.role}`"
        :x1="p.x1"
        :y1="p.y1"
        :x2="p.x2"
        :y2="p.y2"
        class="shaft-pull"
        marker-end="url(#arrow)"
      />
      <g v-for="d in dimensions" :key="d.key" class="dimension" :class="{ hot: d.hot }">
        <line v-for="(f, i) in d.from" :key="i" :x1="f[0]" :y1="f[1]" :x2="f[2]" :y2="f[3]" class="witness" />
        <line :x1="d.x1" :y1="d.y1" :x2="d.x2" :y2="d.y2" marker-start="url(#arrow)" marker-end="url(#arrow)" />
      </g>
      <SeenMarks :marks="seen" />
      <g v-for="l in labels" :key="l.key">
        <rect :x="l.x" :y="l.y" :width="l.width" :height="l.height" class="ground" />
        <template v-for="(line, i) in l.lines" :key="`m${i}`">
          <path
            v-if="line.mark"
            :d="line.mark"
            :transform="`translate(${line.markX} ${line.y - 9.5}) scale(0.78)`"
            class="mark"
          />
        </template>
        <text
          v-for="(line, i) in l.lines"
          :key="i"
          :x="line.x"
          :y="line.y"
          :font-size="line.size"
          :class="[line.class, { strong: line.strong }]"
        >
          {{ line.text }}
        </text>
      </g>
    </template>
    <template #empty><slot /></template>
    <template #over>
      <div v-if="scene" class="plate small">
        <span>{{ focusWheel ? 'one wheel, to scale' : 'to scale' }}, grid {{ scene.grid.label }}</span>
        <span v-if="!narrow">seen from the shaft ends</span>
        <span v-if="pulls.length && !narrow">pulls to one scale</span>
        <span v-if="push && !narrow">push drawn {{ PUSH_DRAWN }} × too deep</span>
        <span v-if="dimmed">working…</span>
      </div>
    </template>
  </DrawingFrame>
</template>

<style scoped>
.shaft-pull {
  stroke: var(--ink);
  stroke-width: 3;
}
.dimmed svg text {
  opacity: 0.45;
}
.grid {
  fill: none;
  stroke: var(--grid);
  stroke-width: 1;
}
.mark {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.5;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.rim {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.hairline,
.datum {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 0.8;
}
.datum {
  stroke-dasharray: 7 3 1.5 3;
  opacity: 0.75;
}
.arm {
  stroke: var(--hair);
  stroke-width: 5;
  stroke-linecap: butt;
}
.hub {
  stroke-width: 1.6;
}
.driver .hub {
  fill: var(--ember-tint);
  stroke: var(--ember);
}
.driven .hub {
  fill: var(--quench-tint);
  stroke: var(--quench);
}
.driver .bore {
  fill: var(--ember);
}
.driven .bore {
  fill: var(--quench);
}
.turn {
  fill: none;
  stroke-width: 2;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.driver .turn {
  stroke: var(--ember);
}
.driven .turn {
  stroke: var(--quench);
}
.belt {
  fill: none;
  stroke: var(--belt);
  stroke-linejoin: round;
}
.cord {
  fill: none;
  stroke: var(--cord);
  stroke-width: 1;
  stroke-dasharray: 5 4;
}
.pull {
  stroke: var(--ink-2);
  stroke-width: 1.4;
}
.pushed {
  fill: none;
  stroke: var(--ember);
  stroke-width: 2;
}
.force {
  stroke: var(--ember);
  stroke-width: 2.6;
}
.dimension line {
  stroke: var(--ink);
  stroke-width: 1;
}
.dimension .witness {
  stroke: var(--ink-2);
  stroke-width: 0.7;
}
.dimension.hot line {
  stroke: var(--ember);
  stroke-width: 1.6;
}
.ground {
  fill: var(--paper);
  opacity: 0.86;
}
text {
  text-anchor: middle;
  fill: var(--ink);
  font-family: var(--font);
  font-stretch: 76%;
  font-weight: 500;
}
text.strong {
  font-weight: 660;
}
text.ember {
  fill: var(--ember);
}
text.quench {
  fill: var(--quench);
}
text.soft {
  fill: var(--ink-2);
}
.plate {
  position: absolute;
  left: 14px;
  bottom: 8px;
  display: flex;
  gap: 14px;
  color: var(--ink-2);
  font-size: 12px;
  font-stretch: 80%;
}
@media (max-width: 760px) {
  .plate {
    left: 8px;
    bottom: 3px;
    font-size: 11px;
  }
}
.spin {
  animation: spin linear infinite;
}
.spin.back,
.cord.back {
  animation-direction: reverse;
}
.runs {
  animation: run 0.375s linear infinite;
}
@keyframes spin {
  to {
    transform: rotate(360deg);
  }
}
@keyframes run {
  to {
    stroke-dashoffset: 9;
  }
}
</style>
