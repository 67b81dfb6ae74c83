<script setup lang="ts">
import type { DriveOut } from '../../api/client'

/** From the survey on two wheels to the one on many. */
const { drive } = defineProps<{ drive: DriveOut }>()
</script>

<template>
  <p class="more">
    <router-link :to="`/drives/${drive.id}/survey/wheels`"
      >More than two wheels, or another stage behind it</router-link
    >
  </p>
</template>

<style scoped>
.more {
  padding: 4px 18px;
}
.more a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
</style>
