<script setup lang="ts">
import { computed } from 'vue'

/** A formula with its subscripts set as such: d_o, K_SR, C². */
const { text } = defineProps<{ text: string }>()
const parts = computed(() =>
  text.split(/(_[A-Za-z0-9θ]+)/).map((part) => ({ sub: part.startsWith('_'), text: part.replace(/^_/, '') })),
)
</script>

<template>
  <span>
    <template v-for="(part, i) in parts" :key="i">
      <sub v-if="part.sub">{{ part.text }}</sub>
      <template v-else>{{ part.text }}</template>
    </template>
  </span>
</template>
