<script setup lang="ts">
import type { LogEntry } from '../../api/client'
import { inSystem, say } from '../../settings'
import OriginMark from '../../sheet/OriginMark.vue'

/** An alignment in the log: its errors with their doubt, and what was said then. */
const { entry } = defineProps<{ entry: LogEntry }>()
const ERRORS = ['angle', 'twist', 'offset'] as const
</script>

<template>
  <dl>
    <div v-for="k in ERRORS.filter((x) => entry.figures?.[x])" :key="k">
      <dt>{{ k }}</dt>
      <dd>
        <OriginMark origin="computed" />
        {{ inSystem(entry.figures![k]!) }}
        <span v-if="entry.figures![k]!.plus_minus_us" class="soft">
          ± {{ inSystem({ us: entry.figures![k]!.plus_minus_us, si: entry.figures![k]!.plus_minus_si }) }}
        </span>
      </dd>
    </div>
  </dl>
  <details v-if="entry.words?.length" class="small">
    <summary>What was said then</summary>
    <p v-for="w in entry.words" :key="w">{{ say(w) }}</p>
  </details>
</template>

<style scoped>
dl {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  margin: 2px 0;
}
dt {
  font-size: 12.5px;
  color: var(--ink-2);
}
dd {
  margin: 0;
  display: flex;
  gap: 5px;
  align-items: center;
  font-stretch: 80%;
  font-weight: 600;
}
summary {
  min-height: 36px;
  display: flex;
  align-items: center;
  cursor: pointer;
}
</style>
