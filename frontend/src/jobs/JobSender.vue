<script setup lang="ts">
import { useJobWork } from './useJobWork'

/** Sends what waits of one job while another page is open. */
const { id } = defineProps<{ id: string }>()
useJobWork(id)
</script>

<template>
  <span hidden />
</template>
