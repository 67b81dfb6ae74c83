<script setup lang="ts">
import { FAMILY_SHAPES, FAMILY_WORDS } from '../../drives/marks'

/** A family's shape, with its name for those who do not see it. */
const { family } = defineProps<{ family: string }>()
</script>

<template>
  <svg class="family" viewBox="-8 -8 16 16" role="img" :aria-label="FAMILY_WORDS[family]">
    <path :d="FAMILY_SHAPES[family]" />
  </svg>
</template>

<style scoped>
.family {
  width: 18px;
  height: 18px;
  fill: none;
  stroke: currentColor;
  stroke-width: 1.3;
  stroke-linejoin: round;
}
</style>
