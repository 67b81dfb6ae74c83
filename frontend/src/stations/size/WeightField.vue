<script setup lang="ts">
/** How much one wish counts: not at all, some, much, most. */
const { name, label, value } = defineProps<{ name: string; label: string; value: number }>()
const emit = defineEmits<{ weigh: [value: number] }>()
const STEPS = [
  { value: 0, says: '–', whole: 'does not count' },
  { value: 1, says: 'some', whole: 'counts some' },
  { value: 2, says: 'much', whole: 'counts much' },
  { value: 3, says: 'most', whole: 'counts most' },
]
</script>

<template>
  <div class="weight" role="radiogroup" :aria-label="label">
    <span>{{ label }}</span>
    <label v-for="s in STEPS" :key="s.value" :class="{ on: s.value === value }">
      <input
        type="radio"
        :name="`w-${name}`"
        :checked="s.value === value"
        :aria-label="`${label} ${s.whole}`"
        @change="emit('weigh', s.value)"
      />
      {{ s.says }}
    </label>
  </div>
</template>

<style scoped>
.weight {
  display: grid;
  grid-template-columns: 1fr repeat(4, 52px);
  align-items: stretch;
  font-size: 14px;
}
.weight > span {
  align-self: center;
}
label {
  min-height: 40px;
  display: grid;
  place-items: center;
  border: 1px solid var(--hair-2);
  margin-left: -1px;
  color: var(--ink-2);
  font-size: 13px;
  cursor: pointer;
}
label.on {
  background: var(--ink);
  color: var(--paper);
}
label:focus-within {
  outline: 2px solid var(--focus);
  outline-offset: 1px;
}
input {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
}
</style>
