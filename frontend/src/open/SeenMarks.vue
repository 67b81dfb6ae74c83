<script setup lang="ts">
/** Where on the drawing something open was seen: a mark on that wheel or strand, its words on touch. */
const { marks } = defineProps<{ marks: { x: number; y: number; weight: string; words: string }[] }>()
</script>

<template>
  <g v-for="(m, i) in marks" :key="i" class="seen" role="img" :aria-label="`Seen here: ${m.words}`">
    <title>{{ m.words }}</title>
    <circle :cx="m.x" :cy="m.y" r="11" />
    <path
      :d="
        m.weight === 'stop'
          ? `M ${m.x - 4.5} ${m.y - 4.5} h 9 v 9 h -9 Z`
          : `M ${m.x} ${m.y - 6} L ${m.x + 6} ${m.y + 4.5} H ${m.x - 6} Z`
      "
    />
  </g>
</template>

<style scoped>
.seen circle {
  fill: var(--sheet);
  stroke: var(--ember);
  stroke-width: 1.4;
}
.seen path {
  fill: var(--ember);
}
</style>
