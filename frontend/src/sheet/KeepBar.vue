<script setup lang="ts">
import { type Problem, trouble } from '../api/client'
import { say } from '../settings'

/** The foot of a station: keep, and what became of it. */
const {
  busy,
  waiting,
  problem,
  kept,
  label,
  mayWrite,
  disabled = false,
  idle = '',
} = defineProps<{
  busy: boolean
  waiting: boolean
  problem: Problem | null
  kept: string
  label: string
  mayWrite: boolean
  disabled?: boolean
  idle?: string
}>()
defineEmits<{ keep: []; retry: [] }>()
</script>

<template>
  <div class="bar no-print">
    <p v-if="waiting" class="note ember" role="status">
      {{ trouble || 'Not answered yet. What you typed is kept on this device.' }} It is sent again by itself.
      <button class="bare" type="button" @click="$emit('retry')"><u>Send now</u></button>
    </p>
    <p v-else-if="problem && problem.status !== 409" class="note ember" role="alert">
      Not kept: {{ say(problem.detail) }}
    </p>
    <p v-else-if="kept" class="note" role="status">
      <span class="ok" aria-hidden="true">✓</span>
      {{ say(kept) }}
    </p>
    <slot />
    <p v-if="!mayWrite" class="note soft">View only. Saving needs the Mechanic role.</p>
    <p v-else-if="disabled && idle" class="note soft">{{ idle }}</p>
    <el-button
      v-else
      type="primary"
      size="large"
      class="go"
      :loading="busy"
      :disabled="disabled"
      @click="$emit('keep')"
    >
      {{ label }}
    </el-button>
  </div>
</template>

<style scoped>
.bar {
  position: sticky;
  bottom: 0;
  background: var(--sheet);
  border-top: 1px solid var(--hair);
  padding: 10px 18px 12px;
  display: grid;
  gap: 8px;
  z-index: 2;
}
.go {
  width: 100%;
}
.note {
  font-size: 14px;
}
.ok {
  color: var(--within);
}
</style>
