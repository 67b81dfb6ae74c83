<script setup lang="ts">
/** What a check looks at, drawn small. */
const { check } = defineProps<{ check: string }>()
</script>

<template>
  <svg viewBox="0 0 60 46" aria-hidden="true" class="picture">
    <template v-if="check === 'isolated'">
      <path d="M18 22h24v18H18z M22 22v-7a8 8 0 0 1 16 0v7 M30 29v5" />
    </template>
    <template v-else-if="check === 'soft_foot'">
      <path d="M6 12h34v14H6z M8 26v8 M38 26v4 M2 38h56" />
      <path d="M34 34h8" class="thick" />
      <circle cx="50" cy="16" r="7" />
      <path d="M50 16l4-4 M48 23l-8 5" />
    </template>
    <template v-else-if="check === 'run_out'">
      <circle cx="22" cy="24" r="15" />
      <circle cx="22" cy="24" r="3" />
      <circle cx="50" cy="12" r="7" />
      <path d="M50 12l3-4 M46 18l-9 3 M12 9a18 18 0 0 1 12-4 M21 2l4 3-3 4" />
    </template>
    <template v-else-if="check === 'shaft'">
      <path d="M4 30h16M20 22v16M20 30c10 0 20-2 36-4" class="thick" />
      <circle cx="44" cy="10" r="7" />
      <path d="M44 10l3-4 M44 17v8" />
    </template>
    <template v-else-if="check === 'grooves'">
      <path d="M4 38V12l8 0 6 18 6-18h4l6 18 6-18h14v26z" />
      <path d="M26 14c-1 6-3 9-5 14" class="thick" />
    </template>
    <template v-else-if="check === 'bushing'">
      <circle cx="30" cy="23" r="18" />
      <circle cx="30" cy="23" r="7" />
      <path d="M37 23h5 M30 11v3 M20 30l2-2 M40 30l-2-2" />
    </template>
    <template v-else-if="check === 'mounts'">
      <path d="M8 10h44v10H8z M12 20c-3 5-3 8 0 12h10c3-4 3-7 0-12 M38 20c-5 3-5 6-2 9h14c3-3 3-6-2-9 M2 34h56" />
    </template>
  </svg>
</template>

<style scoped>
.picture {
  width: 60px;
  height: 46px;
  fill: none;
  stroke: currentColor;
  stroke-width: 1.5;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.thick {
  stroke-width: 3;
  stroke: var(--ember);
}
</style>
