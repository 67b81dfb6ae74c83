<script setup lang="ts">
import { computed } from 'vue'

import type { Choices } from '../../api/client'
import { useAnswers } from '../../sheet/useAnswers'
import StepCones from './ask/StepCones.vue'
import type { ConesAnswer } from './useCones'
import type { Cones } from './useSpeedAsk'

/** Step cones with their own answers beside the fields. */
const form = defineModel<Cones>({ required: true })
const { found, choices } = defineProps<{ found: ConesAnswer | null; choices: Choices }>()
useAnswers(computed(() => found))
</script>

<template>
  <StepCones v-model="form" :found="found" :choices="choices" />
</template>
