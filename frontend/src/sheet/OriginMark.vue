<script setup lang="ts">
import type { Origin } from '../api/client'
import { SHAPES } from './marks'

/** Where a number comes from, as a small drawn mark: shape carries it, the word is in the title. */
const {
  origin,
  weakest = undefined,
  word = false,
} = defineProps<{ origin: Origin; weakest?: Origin; word?: boolean }>()
</script>

<template>
  <span class="mark" :title="weakest && weakest !== origin ? `${origin}, resting on ${weakest}` : origin">
    <svg viewBox="0 0 14 14" aria-hidden="true"><path :d="SHAPES[origin]" /></svg>
    <svg v-if="weakest && weakest !== origin" class="under" viewBox="0 0 14 14" aria-hidden="true">
      <path :d="SHAPES[weakest]" />
    </svg>
    <span v-if="word">{{ origin }}</span>
    <span v-else class="sr">{{ weakest && weakest !== origin ? `${origin}, resting on ${weakest}` : origin }}</span>
  </span>
</template>

<style scoped>
.mark {
  display: inline-flex;
  align-items: center;
  gap: 3px;
  color: var(--ink-2);
  font-size: 12px;
  white-space: nowrap;
}
svg {
  width: 12px;
  height: 12px;
  flex: none;
}
.under {
  width: 9px;
  height: 9px;
  margin-left: -1px;
  align-self: flex-end;
}
path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.4;
  stroke-linecap: round;
  stroke-linejoin: round;
}
</style>
