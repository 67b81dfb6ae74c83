<script setup lang="ts">
import { ref } from 'vue'

import SeenMarks from '../open/SeenMarks.vue'
import { say } from '../settings'
import DrawingFrame from './DrawingFrame.vue'
import type { Held } from './layoutEdit'
import type { Scene, SceneWheel } from './scene'
import type { PanZoom } from './usePanZoom'

/** Every drawing of a drive to scale: the scene of it, with zoom, pan, the running view, and a hand that may move things. */
const {
  scene,
  view,
  label,
  narrow,
  width,
  height,
  hand = undefined,
  runs = true,
  dimmed = false,
} = defineProps<{
  scene: Scene | null
  view: PanZoom
  label: string
  narrow: boolean
  width: number
  height: number
  /** What the hand may do to a thing in the drawing; undefined where nothing is moved. */
  hand?: (thing: Held) => Record<string, (event: never) => void>
  runs?: boolean
  dimmed?: boolean
}>()
const emit = defineEmits<{ pick: [wheel: number] }>()
const running = ref(false)
const SPOKED = 46
const LARGE = 90
const arms = (r: number) => (r > SPOKED ? (r > LARGE ? 6 : 5) : running.value && r > 8 ? 4 : 0)
function arm(w: SceneWheel, n: number): string {
  const angle = (n * 2 * Math.PI) / arms(w.r)
  const [from, to] = [w.hub, w.rail || w.r * 0.86]
  return `M ${w.cx + from * Math.cos(angle)} ${w.cy + from * Math.sin(angle)} L ${w.cx + to * Math.cos(angle)} ${w.cy + to * Math.sin(angle)}`
}
const spin = (w: SceneWheel) => ({ animationDuration: `${w.period}s`, transformOrigin: `${w.cx}px ${w.cy}px` })
const grips = (thing?: Held) => (thing && hand ? hand(thing) : {})
const held = (called?: string) =>
  called ? say(`${called}: arrows move it, Shift for small steps, Enter puts it down`) : undefined
</script>

<template>
  <DrawingFrame
    v-model:running="running"
    :view="view"
    :drawn="scene !== null"
    :label="label"
    :narrow="narrow"
    :width="width"
    :height="height"
    :hands="hand !== undefined"
    :runs="runs"
    :class="{ dimmed }"
  >
    <template v-if="scene">
      <defs>
        <pattern
          id="grid"
          :width="scene.grid.step"
          :height="scene.grid.step"
          patternUnits="userSpaceOnUse"
          :x="scene.grid.x"
          :y="scene.grid.y"
        >
          <path :d="`M ${scene.grid.step} 0 H 0 V ${scene.grid.step}`" class="grid" />
        </pattern>
      </defs>
      <rect :width="width" :height="height" fill="url(#grid)" />
      <polyline v-for="t in scene.tracks" :key="t.key" :points="t.line" class="track" />
      <g
        v-for="w in scene.wheels"
        :key="w.key"
        class="wheel"
        :class="[w.tone, { hot: w.hot, movable: w.thing }]"
        :tabindex="w.thing ? 0 : undefined"
        :role="w.thing ? 'button' : undefined"
        :aria-label="held(w.thing && w.called)"
        v-on="grips(w.thing)"
        @click="w.pick !== undefined && emit('pick', w.pick)"
      >
        <rect
          v-if="w.edge"
          :x="-w.r"
          :y="-Math.max(5, w.r * 0.14)"
          :width="2 * w.r"
          :height="Math.max(10, w.r * 0.28)"
          class="rim"
          :transform="w.edge"
        />
        <template v-else>
          <circle :cx="w.cx" :cy="w.cy" :r="w.r" class="rim" />
          <circle v-if="w.rail" :cx="w.cx" :cy="w.cy" :r="w.rail" class="hairline" />
          <g :class="{ spin: running && w.turn, back: w.back }" :style="spin(w)">
            <path v-for="n in arms(w.r)" :key="n" class="arm" :class="{ thin: w.r <= SPOKED }" :d="arm(w, n)" />
          </g>
        </template>
        <circle :cx="w.cx" :cy="w.cy" :r="w.hub" class="hub" />
        <circle :cx="w.cx" :cy="w.cy" :r="w.bore" class="bore" />
        <template v-if="w.turn && !w.edge">
          <path class="turn" :d="w.turn.arc" />
          <path class="turn" :d="w.turn.head" />
        </template>
      </g>
      <template v-for="b in scene.belts" :key="b.key">
        <path v-if="b.line" :d="b.line" class="belt" :stroke-width="b.thickness" />
        <path
          v-if="b.cord && (b.thickness > 5 || running)"
          :d="b.cord"
          class="cord"
          :class="{ runs: running, back: b.back }"
          :style="{ animationDuration: `${b.period}s` }"
        />
      </template>
      <circle
        v-for="w in scene.wheels.filter((x) => x.datum)"
        :key="`d-${w.key}`"
        :cx="w.cx"
        :cy="w.cy"
        :r="w.datum"
        class="datum"
      />
      <template v-for="t in scene.tracks" :key="`stops ${t.key}`">
        <circle v-for="s in t.stops" :key="s.key" :cx="s.x" :cy="s.y" r="3.5" class="halt" />
      </template>
      <line v-if="scene.carriage" v-bind="scene.carriage" class="carriage" />
      <line v-if="scene.tape" v-bind="scene.tape" class="tape" />
      <line v-for="(p, i) in scene.pulling" :key="`pull ${i}`" v-bind="p" class="pull" marker-end="url(#arrow)" />
      <template v-if="scene.pushed">
        <path :d="scene.pushed.path" class="pushed" />
        <line v-bind="scene.pushed.force" class="force" marker-end="url(#arrow)" />
      </template>
      <g
        v-for="k in scene.keepers"
        :key="k.key"
        class="keeper"
        :class="[k.tone, { movable: k.thing }]"
        :tabindex="k.thing ? 0 : undefined"
        :role="k.thing ? 'button' : undefined"
        :aria-label="held(k.thing && k.called)"
        v-on="grips(k.thing)"
      >
        <line :x1="k.at.x" :y1="k.at.y" :x2="k.foot.x" :y2="k.foot.y" class="reach" />
        <circle :cx="k.at.x" :cy="k.at.y" r="14" class="grip" />
        <rect x="-4" y="-10" width="5" height="20" :transform="`translate(${k.at.x} ${k.at.y}) rotate(${k.turn})`" />
      </g>
      <circle v-if="scene.ghost" :cx="scene.ghost.x" :cy="scene.ghost.y" :r="scene.ghost.r" class="ghost" />
      <line
        v-for="p in scene.arrows"
        :key="p.key"
        :x1="p.x1"
        :y1="p.y1"
        :x2="p.x2"
        :y2="p.y2"
        class="shaft-pull"
        marker-end="url(#arrow)"
      />
      <g v-for="d in scene.dimensions" :key="d.key" class="dimension" :class="{ hot: d.hot }">
        <line v-for="(f, i) in d.from" :key="i" v-bind="f" class="witness" />
        <line :x1="d.x1" :y1="d.y1" :x2="d.x2" :y2="d.y2" marker-start="url(#arrow)" marker-end="url(#arrow)" />
      </g>
      <SeenMarks :marks="scene.marks" />
      <g v-for="t in scene.texts" :key="t.key" class="words">
        <line v-if="t.leader" v-bind="t.leader" class="leader" />
        <rect :x="t.x" :y="t.y" :width="t.width" :height="t.height" class="ground" />
        <template v-for="(line, i) in t.lines" :key="i">
          <path
            v-if="line.mark"
            :d="line.mark"
            :transform="`translate(${line.markX} ${line.y - 9.5}) scale(0.78)`"
            class="mark"
          />
          <text :x="line.x" :y="line.y" :font-size="line.size" :class="line.class">{{ line.text }}</text>
        </template>
      </g>
    </template>
    <template #empty><slot /></template>
    <template #over><slot name="over" /></template>
  </DrawingFrame>
</template>

<style src="./sceneDrawing.css" scoped></style>
