<script setup lang="ts">
import { computed } from 'vue'

import { arrowHead, type Arrow } from './arrows'
import { pictureOf } from './usePhotos'

/** A photograph as it is to be seen: turned, with its arrows. Everything turns together, in one drawing. */
const { photo, size = 'small' } = defineProps<{
  photo: { id: string; width: number; height: number; turned: number; arrows: readonly Arrow[] }
  size?: 'whole' | 'small'
}>()
const lying = computed(() => photo.turned % 180 !== 0)
const box = computed(
  () => (lying.value ? [photo.height, photo.width] : [photo.width, photo.height]) as [number, number],
)
const turn = computed(() => {
  const [w, h] = box.value
  return `translate(${w / 2} ${h / 2}) rotate(${photo.turned}) translate(${-photo.width / 2} ${-photo.height / 2})`
})
const stroke = computed(() => Math.max(photo.width, photo.height) / 90)
</script>

<template>
  <svg :viewBox="`0 0 ${box[0]} ${box[1]}`" class="photo">
    <g :transform="turn" class="upright">
      <image :href="pictureOf(photo, size)" :width="photo.width" :height="photo.height" />
      <g v-for="(a, i) in photo.arrows" :key="i" class="arrow">
        <path
          v-for="under in [true, false]"
          :key="String(under)"
          :d="arrowHead(a, photo.width, photo.height)"
          :stroke-width="under ? stroke * 2.2 : stroke"
          :class="{ under }"
        />
      </g>
    </g>
  </svg>
</template>

<style scoped>
.photo {
  display: block;
  max-width: 100%;
  max-height: 100%;
}
.arrow path {
  fill: none;
  stroke: var(--ember);
  stroke-linecap: round;
  stroke-linejoin: round;
}
.arrow .under {
  stroke: var(--sheet);
}
</style>
