<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { inject } from 'vue'

import AlignSteps from './AlignSteps.vue'
import AlignView from './AlignView.vue'
import { alignKey } from './useAlign'

/** The two wheels in the plane of their shafts and along their line, and under them what to move; on a phone that stands in the panel. */
defineOptions({ inheritAttrs: false })
const desk = inject(alignKey)!
const wide = useMediaQuery('(min-width: 761px)')
</script>

<template>
  <div v-if="desk.answer.value" class="align">
    <div class="views">
      <AlignView v-for="v in desk.answer.value.views" :key="v.key" :view="v" />
    </div>
    <div v-if="wide" class="under"><AlignSteps /></div>
  </div>
  <slot v-else />
</template>

<style scoped>
.align {
  display: grid;
  grid-template-rows: minmax(150px, 1fr) auto;
  min-height: 0;
  min-width: 0;
}
.views {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
  gap: 18px;
  padding: 12px 18px 6px;
  min-height: 0;
}
.under {
  max-height: 56vh;
  overflow-y: auto;
  border-top: 1px solid var(--hair);
  padding: 10px 16px 8px;
  background: var(--sheet);
}
@media (max-width: 760px) {
  .align {
    grid-template-rows: minmax(0, 1fr);
    height: 196px;
  }
  .views {
    gap: 8px;
    padding: 6px 10px 2px;
  }
}
</style>
