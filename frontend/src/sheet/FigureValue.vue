<script setup lang="ts">
import { computed, inject } from 'vue'

import type { Figure } from '../api/client'
import { inSystem, say, settings } from '../settings'
import OriginMark from './OriginMark.vue'
import { workingKey } from './useSheet'

const {
  figure,
  size = 'normal',
  label = undefined,
  doubt = false,
} = defineProps<{ figure: Figure | undefined; size?: 'normal' | 'big'; label?: string; doubt?: boolean }>()
const open = inject(workingKey, undefined)
const parts = computed(() => {
  if (!figure) return null
  const text = inSystem(figure)
  const cut = text.search(/ ?[^\d\s./,-][^\d]*$/)
  return cut > 0
    ? { number: text.slice(0, cut), unit: text.slice(cut).replace(/^ /, '\u00a0') }
    : { number: text, unit: '' }
})
const plusMinus = computed(
  () => figure && (settings.value.system === 'us' ? figure.plus_minus_us : figure.plus_minus_si),
)
const name = computed(() => say(label ?? figure?.label ?? ''))
</script>

<template>
  <component
    :is="figure?.working ? 'button' : 'div'"
    class="figure bare"
    :class="size"
    :type="figure?.working ? 'button' : undefined"
    :title="figure?.working ? 'Show the working' : undefined"
    @click="figure?.working && open?.(figure.key)"
  >
    <span class="name">
      <OriginMark v-if="figure" :origin="figure.origin" :weakest="figure.weakest" />
      {{ name }}
    </span>
    <span v-if="parts" class="value">
      <b>{{ parts.number }}</b>
      <span v-if="parts.unit" class="unit" v-text="parts.unit" />
      <span v-if="doubt && plusMinus" class="unit" v-text="`\u00a0± ${plusMinus}`" />
    </span>
    <span v-else class="value none">–</span>
  </component>
</template>

<style scoped>
.figure {
  display: grid;
  gap: 1px;
  min-width: 0;
}
button.figure:hover b,
button.figure:focus-visible b {
  text-decoration: underline dotted 1px;
  text-underline-offset: 3px;
}
.name {
  font-size: 12.5px;
  color: var(--ink-2);
  display: flex;
  gap: 5px;
  align-items: center;
  white-space: nowrap;
}
.value {
  font-stretch: 76%;
  white-space: nowrap;
}
.value b {
  font-weight: 640;
  font-size: 18px;
}
.big .value b {
  font-size: 23px;
}
.unit {
  color: var(--ink-2);
  font-size: 14px;
}
.none {
  color: var(--ink-2);
}
</style>
