<script setup lang="ts">
import type { Problem } from '../../api/client'
import { when } from '../../words'

/** Somebody kept a survey in between: show what, and let the person choose. Both stay in the log. */
const { problem } = defineProps<{ problem: Problem }>()
defineEmits<{ mine: []; theirs: [] }>()
const since = () =>
  (problem.since ?? []) as { at: string; who: string; action: string; changes: Record<string, [unknown, unknown]> }[]
const name = (column: string) => column.replace(/_(rad_per_s|m3_per_s|pa|a|m)$/, '').replaceAll('_', ' ')
</script>

<template>
  <el-dialog
    :model-value="true"
    title="Changed while you were at it"
    width="min(480px, 94vw)"
    append-to-body
    :show-close="false"
    :close-on-click-modal="false"
  >
    <div class="stack">
      <p>{{ problem.detail }}</p>
      <ul>
        <li v-for="(s, i) in since()" :key="i">
          <b>{{ s.who }}</b>
          {{ s.action }}, {{ when(s.at) }}
          <span v-if="Object.keys(s.changes).length" class="small soft">
            ({{ Object.keys(s.changes).map(name).join(', ') }})
          </span>
        </li>
      </ul>
      <p class="small soft">Whichever you choose, both stay in the log.</p>
    </div>
    <template #footer>
      <el-button @click="$emit('theirs')">Take theirs</el-button>
      <el-button type="primary" @click="$emit('mine')">Keep mine after theirs</el-button>
    </template>
  </el-dialog>
</template>
