<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { type ComponentPublicInstance, computed, ref } from 'vue'

import { marksOf } from '../open/seenMarks'
import { say } from '../settings'
import { useDriveLabels } from './driveLabels'
import { type DriveDrawn, useDriveScene } from './driveScene'
import { type Line, PLAIN, PUSH_DRAWN, type Scene } from './scene'
import SceneDrawing from './SceneDrawing.vue'
import { PACE } from './usePanZoom'

/** A drive on two wheels to scale. Each station asks another question of it and so draws other dimensions over it. */
const props = defineProps<DriveDrawn>()
const frame = ref<ComponentPublicInstance>()
const { width, height } = useElementSize(frame)
const drawn = useDriveScene(props, width, height)
const { narrow, focusWheel, shown, scene: parts, dimensions, push, pulls, hand } = drawn
const labels = useDriveLabels(props, drawn, width, height)

const described = computed(() => {
  if (!props.drawing) return 'Nothing drawn yet'
  const tight = props.drawing.spans[0]?.tight ? 'upper' : 'lower'
  return say(
    `The drive to scale: driver sheave ${shown('driver_outside')}, driven sheave ${shown('driven_outside')}, centres ${shown('centre_distance')}; the ${tight} strand pulls.`,
  )
})
/** A wheel's mark stands off its hub; the belt's on the strand that hangs slack. */
const marks = computed(() =>
  marksOf(props.findings ?? [], (place) => {
    const wheel = parts.value?.wheels.find((w) => w.role === place)
    if (wheel) return { x: wheel.cx - wheel.r * 0.45, y: wheel.cy + wheel.r * 0.45 }
    const span = parts.value?.spans.find((s) => s.tight === (place === 'tight strand'))
    return span ? { x: span.x1 + (span.x2 - span.x1) * 0.3, y: span.y1 + (span.y2 - span.y1) * 0.3 } : null
  }),
)
const CORD = 9
const scene = computed<Scene | null>(() => {
  const s = parts.value
  if (!s) return null
  const back = !props.drawing?.clockwise
  /** Along the inside of the strand that pulls, short of both its ends. */
  const beside = ({ x1, y1, x2, y2, nx, ny }: (typeof s.spans)[number]): Line => {
    const [ox, oy] = [nx * (s.thickness / 2 + 6), ny * (s.thickness / 2 + 6)]
    const [dx, dy] = [(x2 - x1) * 0.06, (y2 - y1) * 0.06]
    return { x1: x2 - ox - dx, y1: y2 - oy - dy, x2: x1 - ox + dx, y2: y1 - oy + dy }
  }
  return {
    ...PLAIN,
    grid: { step: s.grid.metres * s.view.scale, x: s.wheels[0]!.cx, y: s.wheels[0]!.cy },
    wheels: s.wheels.map((w) => ({
      ...w,
      key: w.role,
      tone: w.role,
      rail: w.r > 24 ? Math.max(w.r * 0.8, w.r - s.thickness * 1.9) : 0,
      back,
    })),
    belts: [{ key: 'belt', line: s.belt, cord: s.cord, thickness: s.thickness, back: !back, period: CORD / PACE }],
    pulling: focusWheel.value ? [] : s.spans.filter((x) => x.tight).map(beside),
    pushed: push.value,
    arrows: pulls.value.map((p) => ({ ...p, key: `p-${p.role}` })),
    dimensions: dimensions.value,
    marks: marks.value,
    texts: labels.value.map((l) => ({
      ...l,
      lines: l.lines.map((line) => ({ ...line, class: `${line.class ?? ''} ${line.strong ? 'strong' : ''}` })),
    })),
  }
})
</script>

<template>
  <SceneDrawing
    ref="frame"
    :scene="scene"
    :view="hand"
    :label="described"
    :narrow="narrow"
    :width="width"
    :height="height"
    :dimmed="dimmed"
  >
    <slot />
    <template #over>
      <div v-if="parts" class="plate small">
        <span>{{ focusWheel ? 'one wheel, to scale' : 'to scale' }}, grid {{ parts.grid.label }}</span>
        <span v-if="!narrow">seen from the shaft ends</span>
        <span v-if="pulls.length && !narrow">pulls to one scale</span>
        <span v-if="push && !narrow">push drawn {{ PUSH_DRAWN }} × too deep</span>
        <span v-if="dimmed">working…</span>
      </div>
    </template>
  </SceneDrawing>
</template>

<style scoped>
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
</style>
