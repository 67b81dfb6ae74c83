<script setup lang="ts">
import { inject } from 'vue'

import ConesDrawing from '../../sheet/ConesDrawing.vue'
import FanChart from '../../sheet/FanChart.vue'
import WheelSection from '../../sheet/WheelSection.vue'
import { speedDeskKey } from './useSpeedDesk'

/** Speed's board: step cones, a wheel to make, a fan's curve; else the drive, with the pair that is tried on it. */
defineOptions({ inheritAttrs: false })
const { cones, made, felt, tried, drawn } = inject(speedDeskKey)!
</script>

<template>
  <ConesDrawing v-if="drawn === 'cones'" :found="cones" />
  <WheelSection v-else-if="drawn === 'wheel'" :found="made" />
  <FanChart v-else-if="drawn === 'fan' && felt" :felt="felt" />
  <slot v-else />
  <p v-if="tried" class="offline" role="status">Drawn with the chosen pair: not fitted, not kept.</p>
</template>

<style src="../../sheet/board.css" scoped></style>
