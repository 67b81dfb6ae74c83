<script setup lang="ts">
import { computed } from 'vue'

import { blankPoint, type KeeperEntry } from '../../../../sheet/layoutEdit'
import MeasureField from '../../../../sheet/MeasureField.vue'
import WordField from '../../WordField.vue'
import PointFields from './PointFields.vue'

/** One keeper or guide: the face the belt shows it, whether it is still there, where it stands, and its gap. */
const k = defineModel<KeeperEntry>({ required: true })
const { number, belts, shafts } = defineProps<{
  number: number
  belts: number
  shafts: { value: number; label: string }[]
}>()
const emit = defineEmits<{ remove: [] }>()
const key = computed(() => `keeper_${number}`)
const set = (part: Partial<KeeperEntry>) => (k.value = { ...k.value, ...part })
const SIDES = [
  { value: 'back', label: 'with its back to it' },
  { value: 'inside', label: 'with its inside to it' },
]
const STATES = [
  { value: 'in place', label: 'in place' },
  { value: 'worn off', label: 'worn off' },
  { value: 'missing', label: 'missing' },
]
</script>

<template>
  <fieldset class="keeper">
    <legend class="head">
      <input
        :value="k.name"
        class="name"
        :aria-label="`Name of keeper ${number}`"
        maxlength="60"
        data-entry
        @input="set({ name: ($event.target as HTMLInputElement).value })"
      />
      <button type="button" class="bare tool" :aria-label="`Take keeper ${number} out`" @click="emit('remove')">
        ✕
      </button>
    </legend>
    <WordField
      :model-value="k.side!"
      :name="`${key}_side`"
      label="The belt passes"
      :options="SIDES"
      @update:model-value="set({ side: $event })"
    />
    <WordField
      :model-value="k.state!"
      :name="`${key}_state`"
      label="It is"
      :options="STATES"
      @update:model-value="set({ state: $event })"
    />
    <WordField
      v-if="belts > 1"
      :model-value="String(k.belt)"
      :name="`${key}_belt`"
      label="Keeps"
      :options="Array.from({ length: belts }, (_, b) => ({ value: String(b + 1), label: `belt ${b + 1}` }))"
      @update:model-value="set({ belt: Number($event) })"
    />
    <PointFields
      :model-value="k.at ?? blankPoint()"
      :name="key"
      :wheels="shafts"
      @update:model-value="set({ at: $event })"
    />
    <MeasureField
      :model-value="k.gap!"
      :name="`${key}_gap`"
      field="keeper_gap"
      label="Gap to the taut belt"
      @update:model-value="set({ gap: $event })"
    />
    <MeasureField
      :model-value="k.least!"
      :name="`${key}_least`"
      field="keeper_gap"
      label="Manual: at least"
      @update:model-value="set({ least: $event })"
    />
    <MeasureField
      :model-value="k.most!"
      :name="`${key}_most`"
      field="keeper_gap"
      label="…and at most"
      @update:model-value="set({ most: $event })"
    />
  </fieldset>
</template>

<style src="../ask.css" scoped></style>
<style src="./wheels.css" scoped></style>
