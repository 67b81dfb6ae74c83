<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { type ComponentPublicInstance, computed, ref, toRef } from 'vue'

import { inSystem, say } from '../settings'
import type { Held } from './layoutEdit'
import SceneDrawing from './SceneDrawing.vue'
import { useHeld } from './useHeld'
import { type LayoutDrawn, useLayoutScene } from './useLayoutScene'

/** Many wheels to scale. With `drag`, wheels are moved by hand; keepers without a tape always can be. */
const props = defineProps<LayoutDrawn>()
const emit = defineEmits<{ hold: [held: Held]; drop: []; pick: [wheel: number] }>()
const box = ref<ComponentPublicInstance>()
const { width, height } = useElementSize(box)
const { narrow, view, frame, scene, lengths, arrows } = useLayoutScene(props, width, height)
const hand = useHeld(
  frame,
  toRef(() => props.held ?? null),
  { hold: (h) => emit('hold', h), drop: () => emit('drop') },
)
/** What the hand may do to a thing in the drawing. */
const grips = (thing: Held) => ({
  pointerdown: (e: PointerEvent) => hand.down(e, thing),
  pointermove: hand.move,
  pointerup: hand.up,
  pointercancel: hand.up,
  keydown: (e: KeyboardEvent) => hand.key(e, thing),
  blur: hand.left,
})
const moves = computed(() => (props.drag || (props.loose?.length ?? 0) > 0 ? grips : undefined))
const described = computed(() => {
  const layout = props.layout
  if (!layout?.wheels.length) return 'No wheels placed yet'
  const turn = (t: number) => (t ? `, turns ${t > 0 ? 'counter-clockwise' : 'clockwise'}` : '')
  const wheels = layout.wheels.map(
    (w, i) =>
      `${i + 1} ${w.name}, ${w.role}, ${layout.belts[w.belt - 1]?.goes_round ?? 'belt'} on its ${w.contact}${turn(w.turns)}${w.wrap ? `, wrap ${w.wrap}` : ''}${w.speed ? `, ${inSystem(w.speed)}` : ''}`,
  )
  const keepers = layout.keepers.map(
    (k) => `${k.name}, keeper, belt's ${k.side} to it, ${k.tone === 'stop' ? 'wrong' : k.state}`,
  )
  return [...wheels, ...keepers].join('; ')
})
</script>

<template>
  <SceneDrawing
    ref="box"
    :scene="scene"
    :view="view"
    :label="say(described)"
    :narrow="narrow"
    :width="width"
    :height="height"
    :hand="moves"
    :runs="lengths.length > 0"
    @pick="emit('pick', $event)"
  >
    <slot />
    <template #over>
      <div v-if="lengths.length" class="length">
        <p v-for="l in lengths" :key="l.number">
          {{ l.text }}
          <span v-if="l.nearest" class="soft">nearest {{ l.nearest }}</span>
        </p>
        <p v-if="arrows.length && !narrow" class="soft">pulls to one scale</p>
      </div>
    </template>
  </SceneDrawing>
</template>

<style scoped>
.length {
  position: absolute;
  left: 14px;
  bottom: 10px;
  background: var(--paper);
  padding: 2px 6px;
  font-weight: 640;
  font-stretch: 78%;
}
.length p {
  margin: 0;
}
.length .soft {
  font-weight: 400;
  margin-left: 8px;
}
.length p.soft {
  margin-left: 0;
}
</style>
