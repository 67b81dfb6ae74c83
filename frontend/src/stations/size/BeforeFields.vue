<script setup lang="ts">
import { computed } from 'vue'

import WordField from '../survey/WordField.vue'
import { useSizeChoices } from './useSizeDesk'

/** What stands now, so that a change of kind tells what it saves and what it risks. */
const words = defineModel<Record<string, string>>({ required: true })
const { record = true } = defineProps<{ record?: boolean }>()
const { data: sizes } = useSizeChoices()
const before = computed(() => [
  { value: '', label: record ? 'the drive as surveyed' : 'nothing' },
  ...(sizes.value?.before ?? []).map((b) => ({ value: b, label: b })),
])
const KEPT = [
  { value: '', label: 'well kept' },
  { value: 'yes', label: 'let go: slack, dry or worn' },
]
</script>

<template>
  <fieldset>
    <WordField v-model="words.before!" name="before" label="What stands now" :options="before" wide />
    <WordField v-model="words.neglected!" name="neglected" label="It is" :options="KEPT" wide />
    <WordField v-model="words.load!" name="load" label="Load, percent of the plate" placeholder="75" />
    <WordField v-model="words.days_a_year!" name="days_a_year" label="Days a year" placeholder="250" />
    <WordField v-model="words.price_kwh!" name="price_kwh" label="Price of a kWh" placeholder="0.15" />
  </fieldset>
</template>

<style src="../survey/ask/ask.css" scoped></style>
<style scoped>
fieldset {
  border-top: 0;
  padding-top: 0;
}
</style>
