<script setup lang="ts">
import MeasureField from '../../../../sheet/MeasureField.vue'
import type { PointEntry } from '../../../../sheet/layoutEdit'

/** A point taped from two wheels; drawn by hand where no tape is typed. */
const point = defineModel<PointEntry>({ required: true })
const { name, wheels } = defineProps<{ name: string; wheels: { value: number; label: string }[] }>()
const ENDS = [
  ['from_a', 'tape_a', 'one'],
  ['from_b', 'tape_b', 'the other'],
] as const
</script>

<template>
  <div v-for="[from, tape, word] in ENDS" :key="tape" class="end">
    <select
      :value="point[from]"
      :aria-label="`Taped from ${word} wheel`"
      @change="point = { ...point, [from]: Number(($event.target as HTMLSelectElement).value) }"
    >
      <option :value="0">from wheel…</option>
      <option v-for="w in wheels" :key="w.value" :value="w.value">{{ w.label }}</option>
    </select>
    <MeasureField
      :model-value="point[tape]!"
      :name="`${name}_${tape}`"
      field="point_tape"
      label="tape, from its centre"
      tight
      @update:model-value="point = { ...point, [tape]: $event }"
    />
  </div>
</template>

<style src="./wheels.css" scoped></style>
