<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { inject } from 'vue'

import TensionScale from './TensionScale.vue'
import { tensionKey } from './useTension'

/** The drive, and under it the one scale that everything is held against; on a phone the scale stands in the panel. */
defineOptions({ inheritAttrs: false })
const desk = inject(tensionKey)!
const wide = useMediaQuery('(min-width: 761px)')
</script>

<template>
  <div class="tension">
    <slot />
    <div v-if="wide && desk.tight.value" class="under"><TensionScale /></div>
  </div>
</template>

<style scoped>
.tension {
  display: grid;
  grid-template-rows: minmax(170px, 1fr) auto;
  min-height: 0;
  min-width: 0;
}
.under {
  max-height: 58vh;
  overflow-y: auto;
  border-top: 1px solid var(--hair);
  padding: 8px 16px 6px;
  background: var(--sheet);
}
</style>
