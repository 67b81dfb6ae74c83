<script setup lang="ts">
import { computed, inject, ref } from 'vue'

import type { Choices } from '../../api/client'
import WordField from '../survey/WordField.vue'
import { tensionKey } from './useTension'

/** What holds the stage's tension: asked first, once; then one line. */
const { choices } = defineProps<{ choices: Choices['held_by'] }>()
const desk = inject(tensionKey)!
const stage = desk.stage
const change = ref(false)
const said = computed(() => choices.find((c) => c.value === stage.value.held_by && c.value)?.label ?? '')
</script>

<template>
  <div v-if="said && !change" class="line">
    <span
      >Held by <b>{{ said }}</b></span
    >
    <button type="button" class="bare" @click="change = true"><u class="small">change</u></button>
  </div>
  <template v-else>
    <WordField v-model="stage.held_by" name="held_by" label="What holds its tension?" :options="choices" />
    <p v-if="!said" class="small soft">
      Reckoned as fixed centres until somebody says: a spring or weight wants about a third of that.
    </p>
  </template>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: 44px;
}
p {
  margin: -8px 0 0;
}
</style>
