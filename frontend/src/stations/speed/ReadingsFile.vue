<script setup lang="ts">
import { ref } from 'vue'

import { api, unwrap } from '../../api/client'
import type { components } from '../../api/schema'

/** Readings from an instrument's CSV file, row by row: what can be taken is, and each other row says why not. */
const emit = defineEmits<{ take: [field: string, text: string, unit: string] }>()
const report = ref<components['schemas']['FileOut'] | null>(null)
const trouble = ref('')
async function load(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  trouble.value = ''
  try {
    const text = (await file.text()).slice(0, 200_000)
    report.value = await unwrap(api.POST('/api/calc/speed/readings-file', { body: { text } }))
    for (const row of report.value.rows) if (row.field) emit('take', row.field, row.text, row.unit)
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
</script>

<template>
  <div class="file no-print">
    <label class="pick">
      <u>Readings from a file</u> <span class="small soft">CSV: what, value, unit</span>
      <input type="file" accept=".csv,text/csv,text/plain" class="sr" @change="load" />
    </label>
    <p v-if="report?.refused" class="ember small" role="alert">{{ report.refused }}</p>
    <ul v-else-if="report" class="small">
      <li v-for="r in report.rows" :key="r.line" :class="{ ember: !r.field }">
        Line {{ r.line }}: {{ r.text }} {{ r.unit }}. {{ r.sentence }}
      </li>
    </ul>
    <p v-if="trouble" class="ember small" role="alert">{{ trouble }}</p>
  </div>
</template>

<style scoped>
.pick {
  cursor: pointer;
  min-height: 40px;
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
.pick:focus-within {
  outline: 2px solid var(--focus);
}
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
