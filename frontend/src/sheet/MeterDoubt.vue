<script setup lang="ts">
import { computed } from 'vue'

import type { Problem } from '../api/client'

/** Beside an hour meter: why it was not taken; where it can hardly be, that it is so all the same, which its unit says. */
const hours = defineModel<string>({ required: true })
const { problem } = defineProps<{ problem: Problem | null }>()
const said = computed(() => problem?.errors?.find((e) => e.field === 'hour_meter')?.detail ?? '')
const meant = computed(() => hours.value.trim().endsWith('h'))
</script>

<template>
  <span v-if="said" class="ember small" role="alert">
    {{ said }}
    <el-button v-if="said.includes('If it is so') && !meant" @click="hours = `${hours.trim()} h`">It is so</el-button>
  </span>
</template>
