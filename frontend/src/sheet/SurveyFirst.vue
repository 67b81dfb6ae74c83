<script setup lang="ts">
import { useRoute } from 'vue-router'

/** A reading belongs to what is on the record: send the person to keep the survey first. */
const route = useRoute()
</script>

<template>
  <p class="first">
    The survey has changes that are not kept.
    <router-link :to="`/drives/${String(route.params.id)}/survey`">Keep the survey</router-link>
    first: a reading belongs to what is fitted.
  </p>
</template>

<style scoped>
.first {
  font-size: 14px;
}
</style>
