<script setup lang="ts">
/** How a method reads two wheels, drawn small: our own pictures, one a method. */
const { method } = defineProps<{ method: string }>()
</script>

<template>
  <svg viewBox="0 0 72 40" aria-hidden="true" class="picture">
    <template v-if="['straightedge', 'string', 'two_heads', 'tape', 'one_head'].includes(method)">
      <path d="M4 14v8h22v-8z" class="wheel" />
      <path d="M48 15v8h18v-8z" class="wheel" transform="rotate(6 57 19)" />
      <path d="M15 22v14 M57 24l-1 12" />
    </template>
    <template v-if="method === 'straightedge'">
      <path d="M1 8h70v4H1z" class="wheel" />
    </template>
    <path v-else-if="method === 'string'" d="M4 8 66 10 M4 8v6 M66 10v4" class="thin" />
    <template v-else-if="method === 'two_heads'">
      <path d="M22 5h8v8h-8z M44 5h8v8h-8z" class="wheel" />
      <path d="M30 8h14 M44 10H30" class="thin" />
    </template>
    <template v-else-if="method === 'one_head'">
      <path d="M20 5h8v8h-8z" class="wheel" />
      <path d="M28 8h40" class="thin" />
      <path d="M48 4v10 M66 5v10" />
    </template>
    <template v-else-if="method === 'tape'">
      <path d="M15 28h42 M15 28l4-2v4z M57 28l-4-2v4z M15 35h41 M15 35l4-2v4z M56 35l-4-2v4z" class="thin" />
    </template>
    <template v-else-if="method === 'clock'">
      <circle cx="22" cy="21" r="14" />
      <circle cx="54" cy="21" r="10" />
      <path d="M12 9 62 9 M12 33 62 33" class="thin" />
      <path d="M54 7v5 M54 30v5" />
    </template>
    <template v-else-if="method === 'level'">
      <path d="M4 26h28 M40 28l28-3" class="belt" />
      <path d="M8 14h20v8H8z M44 15l20-2 1 8-20 2z" />
      <circle cx="18" cy="18" r="2.4" />
      <circle cx="52" cy="18.4" r="2.4" />
    </template>
    <template v-else-if="method === 'tracking'">
      <path d="M14 8h20v24H14z" class="wheel" />
      <path d="M24 4v32" class="thin" />
      <path d="M26 8v24 M32 8v24" class="belt" />
      <path d="M44 20h16 M55 16l5 4-5 4" />
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
.wheel {
  fill: var(--sheet);
}
.belt {
  stroke-width: 2.6;
}
.thin {
  stroke-width: 1;
  stroke-dasharray: 3 2;
}
</style>
