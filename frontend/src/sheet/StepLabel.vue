<script setup lang="ts">
/** A dimension's number in the order of measuring, ticked when done, and its words; the group around it says whether it is next. */
const {
  number,
  done,
  words = '',
  at = -4,
} = defineProps<{ number: number; done: boolean; words?: string; at?: number }>()
</script>

<template>
  <g>
    <circle :cx="at" cy="-5" r="10" class="no" />
    <text :x="at" y="-0.5" text-anchor="middle" class="n">{{ done ? '✓' : number }}</text>
    <text v-if="words" :x="at + 16" y="0" class="t">{{ words }}</text>
  </g>
</template>

<style src="./section.css" scoped></style>
