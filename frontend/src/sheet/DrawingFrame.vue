<script setup lang="ts">
import type { PanZoom } from './usePanZoom'

/** The frame of every drawing to scale: zoom and pan by wheel, touch, keys and buttons, and the running view. */
const {
  view,
  drawn,
  label,
  narrow,
  hands = false,
  runs = true,
} = defineProps<{
  view: PanZoom
  drawn: boolean
  label: string
  narrow: boolean
  width: number
  height: number
  hands?: boolean
  runs?: boolean
}>()
const running = defineModel<boolean>('running', { required: true })
</script>

<template>
  <div
    class="frame"
    tabindex="0"
    aria-label="Drawing: plus, minus and 0 zoom, arrows move"
    role="group"
    @keydown="view.key"
  >
    <svg
      v-if="drawn"
      :role="hands ? 'group' : 'img'"
      :aria-label="label"
      :width="width"
      :height="height"
      :viewBox="`0 0 ${width} ${height}`"
      :class="{ moved: view.moved.value || hands }"
      @wheel.prevent="view.wheel"
      @pointerdown="view.down"
      @pointermove="view.move"
      @pointerup="view.up"
      @pointercancel="view.up"
    >
      <defs>
        <marker
          id="arrow"
          viewBox="0 0 10 6"
          refX="9.5"
          refY="3"
          markerWidth="11"
          markerHeight="7"
          markerUnits="userSpaceOnUse"
          orient="auto-start-reverse"
        >
          <path d="M0 0L10 3L0 6z" fill="context-stroke" />
        </marker>
      </defs>
      <slot />
    </svg>
    <div v-else class="empty"><slot name="empty" /></div>
    <slot name="over" />
    <p v-if="drawn" class="tools no-print">
      <template v-if="!narrow">
        <button type="button" aria-label="Larger" @click="view.zoomBy(1.25)">+</button>
        <button type="button" aria-label="Smaller" @click="view.zoomBy(0.8)">−</button>
      </template>
      <button v-if="!narrow || view.moved.value" type="button" @click="view.fitAll">Fit</button>
      <button v-if="runs" type="button" :aria-pressed="running" @click="running = !running">
        {{ running ? 'Stand still' : 'Run' }}
      </button>
    </p>
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  min-height: 0;
  height: 100%;
  overflow: hidden;
}
.frame:focus-visible {
  outline-offset: -3px;
}
/* A finger scrolls the page past a drawing that stands as it was fitted. */
svg {
  display: block;
  touch-action: pan-y;
  cursor: grab;
  font-family: var(--font);
  font-stretch: 80%;
}
svg.moved {
  touch-action: none;
}
.tools {
  position: absolute;
  right: 10px;
  top: 10px;
  display: flex;
  gap: 4px;
}
.tools button {
  min-width: 40px;
  min-height: 40px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  cursor: pointer;
}
@media (max-width: 760px) {
  .tools {
    top: auto;
    bottom: 6px;
  }
}
.empty {
  height: 100%;
  display: grid;
  place-items: center;
  padding: 24px;
}
</style>
