<script setup lang="ts">
import type { Sheet } from '../api/client'
import FigureValue from './FigureValue.vue'

/** The few figures that stay under the drawing at every station. */
const { figures } = defineProps<{ figures: Sheet['figures']; stale: boolean }>()
</script>

<template>
  <div class="strip" :class="{ stale }">
    <FigureValue :figure="figures.ratio" label="Ratio" />
    <FigureValue :figure="figures.tach_driven ?? figures.driven_speed" label="Driven" />
    <FigureValue :figure="figures.belt_speed" label="Belt speed" />
    <FigureValue :figure="figures.wrap_driver" label="Wrap, driver" />
    <FigureValue :figure="figures.design_power" label="Design power" />
    <FigureValue
      :figure="figures.capacity ?? figures.power_per_belt"
      :label="figures.capacity ? 'Set carries' : 'One belt carries'"
    />
  </div>
</template>

<style scoped>
.strip {
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  border-top: 1px solid var(--hair);
  background: var(--paper);
}
.strip > * {
  padding: 9px 12px 10px;
  border-left: 1px solid var(--hair-2);
}
.strip > *:first-child {
  border-left: 0;
}
.stale {
  opacity: 0.55;
}
@media (max-width: 760px) {
  .strip {
    grid-template-columns: repeat(6, max-content);
    overflow-x: auto;
  }
  .strip > * {
    padding: 4px 9px 5px;
  }
}
</style>
