<script setup lang="ts">
/** One tap takes a photo on a phone, or picks one at a desk. */
const {
  busy = false,
  label = 'Photo',
  bare = false,
} = defineProps<{ busy?: boolean; label?: string; bare?: boolean }>()
const emit = defineEmits<{ taken: [file: File] }>()
function taken(event: Event): void {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file) emit('taken', file)
}
</script>

<template>
  <label class="camera" :class="{ busy }">
    <svg viewBox="0 0 24 20" aria-hidden="true">
      <path d="M2 5h5l2-3h6l2 3h5v13H2z" />
      <circle cx="12" cy="11" r="4" />
    </svg>
    <span :class="{ sr: bare && !busy }">{{ busy ? 'Sending…' : label }}</span>
    <input type="file" accept="image/*" capture="environment" :disabled="busy" @change="taken" />
  </label>
</template>

<style scoped>
.camera {
  position: relative;
  display: inline-flex;
  gap: 7px;
  align-items: center;
  min-height: 44px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  padding: 0 12px;
  font-size: 14.5px;
  font-stretch: 80%;
  font-weight: 600;
  cursor: pointer;
  white-space: nowrap;
}
.camera:hover,
.camera:focus-within {
  border-color: var(--ink-2);
}
.camera:focus-within {
  outline: 2px solid var(--focus);
  outline-offset: 1px;
}
.busy {
  color: var(--ink-2);
}
input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
  font-size: 0;
}
svg {
  width: 20px;
  fill: none;
  stroke: currentColor;
  stroke-width: 1.6;
  stroke-linejoin: round;
}
</style>
