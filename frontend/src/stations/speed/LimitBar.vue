<script setup lang="ts">
import { computed } from 'vue'

import type { Figure } from '../../api/client'
import FigureValue from '../../sheet/FigureValue.vue'

/** A speed against its limit: how full the bar is says how near. */
const { figure } = defineProps<{ figure: Figure | undefined }>()
const share = computed(() => (figure?.limit_si ? figure.value_si / figure.limit_si : 0))
</script>

<template>
  <div v-if="figure?.limit_si" class="limit">
    <FigureValue :figure="figure" :label="figure.label" />
    <span class="bar" role="img" :aria-label="`${Math.round(share * 100)} percent of its limit`">
      <i :class="{ over: share > 1 }" :style="{ width: `${Math.min(share, 1.12) * 84}%` }" />
      <b />
    </span>
    <span class="small" :class="share > 1 ? 'ember' : 'soft'">
      {{ share > 1 ? 'over the limit' : `${Math.round(share * 100)} %` }}
    </span>
  </div>
</template>

<style scoped>
.limit {
  display: grid;
  grid-template-columns: 132px 1fr 64px;
  gap: 12px;
  align-items: center;
}
.bar {
  position: relative;
  height: 12px;
  border-bottom: 1px solid var(--ink);
}
i {
  position: absolute;
  inset: 2px auto 0 0;
  background: var(--ink-2);
}
i.over {
  background: var(--ember);
}
b {
  position: absolute;
  left: 84%;
  top: -4px;
  bottom: -4px;
  border-left: 2px solid var(--ember);
}
</style>
