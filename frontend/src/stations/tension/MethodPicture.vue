<script setup lang="ts">
/** How a method looks at the belt, drawn small: our own pictures, one a method. */
const { method } = defineProps<{ method: string }>()
</script>

<template>
  <svg viewBox="0 0 72 40" aria-hidden="true" class="picture">
    <template v-if="method === 'gauge'">
      <circle cx="9" cy="26" r="7" />
      <circle cx="63" cy="26" r="7" />
      <path d="M9 19 36 25 63 19" class="belt" />
      <path d="M5 16h62" class="thin" />
      <path d="M36 24V4 M33.5 4h5v11h-5z M33 18h6" />
    </template>
    <template v-else-if="method === 'scale'">
      <circle cx="9" cy="26" r="7" />
      <circle cx="63" cy="26" r="7" />
      <path d="M9 19 36 25 63 19" class="belt" />
      <path d="M36 25v-6 M31 5h10v14H31z M33 8h6 M33 11h4 M33 14h6" />
      <path d="M48 6v22 M46 10h4 M46 14h4 M46 18h4 M46 22h4" class="thin" />
    </template>
    <template v-else-if="method === 'note'">
      <circle cx="9" cy="26" r="7" />
      <circle cx="63" cy="26" r="7" />
      <path d="M9 19 Q36 12 63 19" class="thin" />
      <path d="M9 19 Q36 26 63 19" class="belt" />
      <path d="M28 4q3 3 0 6 M35 2q5 4 0 9 M42 4q3 3 0 6" class="thin" />
    </template>
    <template v-else-if="method === 'strand'">
      <path d="M2 28h68" class="belt" />
      <path d="M20 26q16-8 32 0 M36 22V10 M30 10h12 M36 22l14-12" />
      <path d="M30 33q6 4 12 0" class="thin" />
    </template>
    <template v-else-if="method === 'clip'">
      <path d="M2 22 18 22 36 28 54 22 70 22" class="belt" />
      <circle cx="18" cy="26" r="3" />
      <circle cx="54" cy="26" r="3" />
      <circle cx="36" cy="23" r="3" />
      <path d="M36 20V8 M31 12l10-2 M31 16l10-2" />
    </template>
    <template v-else-if="method === 'marks'">
      <path d="M2 22h68" class="belt" />
      <path d="M14 15v14 M58 15v14" />
      <path d="M14 8h44 M14 8l4-2v4z M58 8l-4-2v4z" class="thin" />
    </template>
    <template v-else-if="method === 'sag' || method === 'moves'">
      <circle cx="10" cy="14" r="8" />
      <circle cx="62" cy="14" r="8" />
      <path d="M10 6h52" class="belt" />
      <path d="M10 22 Q36 36 62 22" class="belt" />
      <path v-if="method === 'sag'" d="M10 22h52 M36 22v7" class="thin" />
      <path v-else d="M36 18v16 M33 21l3-4 3 4 M33 31l3 4 3-4" />
    </template>
    <template v-else-if="method === 'lever'">
      <path d="M2 30 34 20 70 28" class="belt" />
      <circle cx="34" cy="27" r="6" />
      <path d="M14 8 34 27 M14 8l-6-5 M8 3l9-1" />
      <circle cx="20" cy="14" r="2" />
    </template>
    <template v-else-if="method === 'base'">
      <path d="M8 34h6l4-6 M18 28h34" />
      <circle cx="16" cy="30" r="2.5" />
      <path d="M30 14h20v14H30z" />
      <circle cx="40" cy="21" r="4" />
      <path d="M36 19 30 2 M44 19 52 2" class="belt" />
    </template>
  </svg>
</template>

<style scoped>
.picture {
  width: 72px;
  height: 40px;
  fill: none;
  stroke: currentColor;
  stroke-width: 1.6;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.belt {
  stroke-width: 2.6;
}
.thin {
  stroke-width: 1;
  stroke-dasharray: 3 2;
}
</style>
