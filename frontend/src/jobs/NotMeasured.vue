<script setup lang="ts">
import { say } from '../settings'
import type { Job } from './useJobs'

/** The steps that ask for a reading and got none, each with the page that takes it. */
const { job } = defineProps<{ job: Job }>()
</script>

<template>
  <div v-if="job.unread.length">
    <h2>Not measured</h2>
    <ul>
      <li v-for="u in job.unread" :key="u.key">
        {{ say(u.do) }} <router-link :to="`/drives/${job.drive_id}/${u.page}`">Measure it now ›</router-link>
      </li>
    </ul>
  </div>
</template>

<style scoped>
h2 {
  font-size: 17px;
  color: var(--ember);
}
ul {
  margin: 4px 0 0;
  padding-left: 20px;
  display: grid;
  gap: 4px;
}
</style>
