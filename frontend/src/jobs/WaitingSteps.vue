<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import JobSender from './JobSender.vue'
import type { Queue } from './queue'
import { forgetNobodys, isStuck, unsentIn, useQueues } from './queues'

/** Steps that wait on this device: the person's own are sent from any page; what somebody else did is told, and never sent for them. */
const route = useRoute()
const { own, others } = useQueues()
const elsewhere = computed(() => own.value.filter((q) => route.path !== `/jobs/${q.job}`))
const steps = (queue: Queue): string => (unsentIn(queue) === 1 ? '1 step' : `${unsentIn(queue)} steps`)
const of = (queue: Queue): string => (queue.title ? ` of “${queue.title}”` : ' of a job')
</script>

<template>
  <JobSender v-for="q in elsewhere" :id="q.job" :key="`${q.person} ${q.job}`" />
  <p v-for="q in elsewhere.filter(isStuck)" :key="`stuck ${q.job}`" class="line" role="status">
    {{ steps(q) }}{{ of(q) }} {{ unsentIn(q) === 1 ? 'is' : 'are' }} not on the record.
    <router-link :to="`/jobs/${q.job}`">See why ›</router-link>
  </p>
  <p v-for="q in others" :key="`${q.person} ${q.job}`" class="line" role="status">
    <template v-if="q.person">
      {{ q.name }} has {{ steps(q) }}{{ of(q) }} waiting on this device. They are sent when {{ q.name }} signs in here.
    </template>
    <template v-else>
      {{ steps(q) }} of a job {{ unsentIn(q) === 1 ? 'was' : 'were' }} kept on this device without a name, and not sent.
      <button type="button" class="bare" @click="forgetNobodys(q.job)"><u>Discard</u></button>
    </template>
  </p>
</template>

<style scoped>
.line {
  padding: 8px 16px;
  background: var(--ember-tint);
  font-size: 14.5px;
}
</style>
