<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'

import { useChoices } from '../api/queries'
import BenchFind from './BenchFind.vue'
import BenchNav from './BenchNav.vue'

/** Which belt is this, without a drive. */
const { data: choices, error } = useChoices()
const narrow = useMediaQuery('(max-width: 760px)')
</script>

<template>
  <div class="bench">
    <BenchNav here="belt" />
    <BenchFind v-if="choices" :choices="choices" :narrow="narrow" />
    <p v-else-if="error" class="gap" role="alert">{{ error.message }}</p>
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
}
.gap {
  padding: 24px;
}
@media (max-width: 760px) {
  .bench {
    display: block;
  }
}
</style>
