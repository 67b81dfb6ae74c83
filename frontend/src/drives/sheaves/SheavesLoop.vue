<script setup lang="ts">
import { computed } from 'vue'

import type { Choices } from '../../api/client'
import type { SheavesForm } from '../../sheet/form'
import WordField from '../../stations/survey/WordField.vue'

/** V-belts of one stage on many wheels. */
const fitted = defineModel<SheavesForm>({ required: true })
const { prefix, choices } = defineProps<{ prefix: string; choices: Choices }>()
const words = computed(() => fitted.value.choices)
</script>

<template>
  <WordField v-model="words.section" :name="`${prefix}section`" label="Section" :options="choices.sections" />
  <WordField v-model="words.belt" :name="`${prefix}belt`" label="Name on the belt" placeholder="B81, or - when gone" />
  <WordField
    v-model="words.belt_count"
    :name="prefix ? `${prefix}count` : 'belt_count'"
    label="How many, side by side"
  />
</template>
