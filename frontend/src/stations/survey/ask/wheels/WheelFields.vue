<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Choices } from '../../../../api/client'
import type { faceOf } from '../../../../drives/registry'
import type { Stage, WheelEntry } from '../../../../sheet/form'
import { takeUpOf } from '../../../../sheet/layoutEdit'
import MeasureField from '../../../../sheet/MeasureField.vue'
import WordField from '../../WordField.vue'
import PointFields from './PointFields.vue'

/** One wheel: what it is, how the belt touches it, and (opened) what it takes, how it must turn, whose shaft it sits on, how it moves. */
const w = defineModel<WheelEntry>({ required: true })
const { number, count, belts, made, runs, coordinates, shafts, choices } = defineProps<{
  number: number
  count: number
  /** The stages, the one that runs on this wheel as its kind has it, and what goes round there. */
  belts: Stage[]
  made: ReturnType<typeof faceOf>
  runs: string
  coordinates: boolean
  shafts: { value: number; label: string }[]
  choices: Choices
}>()
const emit = defineEmits<{ shift: [by: number]; remove: [] }>()

const key = computed(() => `wheel_${number}`)
const opened = ref(false)
const used = computed(
  () => w.value.power?.text || w.value.turns || w.value.take_up?.how || w.value.shaft_of || (w.value.belt ?? 1) > 1,
)
const takeUp = computed({
  get: () => takeUpOf(w.value),
  set: (value) => (w.value = { ...w.value, take_up: value }),
})
const set = (part: Partial<WheelEntry>) => (w.value = { ...w.value, ...part })
const others = computed(() => shafts.filter((s) => s.value !== number))
const ROLES = [
  { value: 'driver', label: 'drives' },
  { value: 'driven', label: 'is driven' },
  { value: 'idler', label: 'idler' },
]
const contacts = computed(() => [
  { value: 'inside', label: `on the ${runs}'s inside` },
  { value: 'back', label: `on the ${runs}'s back` },
])
const faces = computed(() => [
  { value: 'grooved', label: made.face },
  { value: 'flat', label: made.wheels === 'teeth' ? 'smooth' : 'flat' },
])
/** Teeth are counted; what has none is measured across. A toothed belt's back has none to mesh with. */
const byTeeth = computed(
  () => made.wheels === 'teeth' && w.value.face !== 'flat' && (w.value.contact !== 'back' || runs === 'chain'),
)
const TURNS = [
  { value: '', label: 'as it is turned' },
  { value: 'clockwise', label: 'must turn clockwise' },
  { value: 'counter-clockwise', label: 'must turn counter-clockwise' },
]
const MOVES = [
  { value: '', label: 'stands fast' },
  { value: 'line', label: 'slides in a slot' },
  { value: 'arm', label: 'swings on an arm' },
]
const along = computed(() => [{ value: '', label: 'straight into the belt' }, ...choices.directions])
</script>

<template>
  <fieldset class="wheel">
    <legend class="head">
      <span class="number">{{ number }}</span>
      <input
        :value="w.name"
        class="name"
        :aria-label="`Name of wheel ${number}`"
        maxlength="60"
        data-entry
        @input="set({ name: ($event.target as HTMLInputElement).value })"
      />
      <button
        type="button"
        class="bare tool"
        :disabled="number === 1"
        :aria-label="`Wheel ${number} earlier`"
        @click="emit('shift', -1)"
      >
        ↑
      </button>
      <button
        type="button"
        class="bare tool"
        :disabled="number === count"
        :aria-label="`Wheel ${number} later`"
        @click="emit('shift', 1)"
      >
        ↓
      </button>
      <button type="button" class="bare tool" :aria-label="`Take wheel ${number} out`" @click="emit('remove')">
        ✕
      </button>
    </legend>
    <WordField
      v-if="byTeeth"
      :model-value="w.teeth ?? ''"
      :name="`${key}_teeth`"
      label="Teeth"
      placeholder="count them"
      @update:model-value="set({ teeth: $event })"
    />
    <MeasureField
      v-else
      :model-value="w.diameter!"
      :name="`${key}_diameter`"
      field="driven_diameter"
      label="Outside diameter"
      @update:model-value="set({ diameter: $event })"
    />
    <WordField
      :model-value="w.role!"
      :name="`${key}_role`"
      label="It"
      :options="ROLES"
      @update:model-value="set({ role: $event })"
    />
    <WordField
      :model-value="w.contact!"
      :name="`${key}_contact`"
      label="Runs"
      :options="contacts"
      @update:model-value="set({ contact: $event })"
    />
    <WordField
      v-if="made.face"
      :model-value="w.face!"
      :name="`${key}_face`"
      label="Face"
      :options="faces"
      @update:model-value="set({ face: $event })"
    />
    <template v-if="coordinates && number > 1 && !w.shaft_of">
      <MeasureField
        :model-value="w.x!"
        :name="`${key}_x`"
        field="coordinate"
        label="Right of wheel 1"
        hint="- for left"
        @update:model-value="set({ x: $event })"
      />
      <MeasureField
        :model-value="w.y!"
        :name="`${key}_y`"
        field="coordinate"
        label="Above wheel 1"
        hint="- for below"
        @update:model-value="set({ y: $event })"
      />
    </template>
    <button v-if="!opened && !used" type="button" class="bare more small" @click="opened = true">
      <u>Power, turning, shaft, how it takes up</u>
    </button>
    <template v-else>
      <MeasureField
        v-if="w.role === 'driven'"
        :model-value="w.power!"
        :name="`${key}_power`"
        field="wheel_power"
        label="Power it takes"
        @update:model-value="set({ power: $event })"
      />
      <WordField
        :model-value="w.turns!"
        :name="`${key}_turns`"
        label="Turning"
        :options="TURNS"
        @update:model-value="set({ turns: $event })"
      />
      <WordField
        v-if="belts.length > 1"
        :model-value="String(w.belt)"
        :name="`${key}_belt`"
        label="Runs on"
        :options="belts.map((_, b) => ({ value: String(b + 1), label: `number ${b + 1}` }))"
        @update:model-value="set({ belt: Number($event) })"
      />
      <WordField
        v-if="belts.length > 1"
        :model-value="String(w.shaft_of)"
        :name="`${key}_shaft`"
        label="Sits on"
        :options="[
          { value: '0', label: 'a shaft of its own' },
          ...others.map((o) => ({ value: String(o.value), label: `the shaft of ${o.label}` })),
        ]"
        @update:model-value="set({ shaft_of: Number($event) })"
      />
      <WordField
        :model-value="takeUp.how!"
        :name="`${key}_moves`"
        label="To take up, it"
        :options="MOVES"
        @update:model-value="takeUp = { ...takeUp, how: $event }"
      />
      <template v-if="takeUp.how">
        <WordField
          v-if="takeUp.how === 'line'"
          :model-value="takeUp.along!"
          :name="`${key}_along`"
          label="The slot points"
          :options="along"
          @update:model-value="takeUp = { ...takeUp, along: $event }"
        />
        <span v-else class="small soft">The arm's pivot, by tape from two wheels:</span>
        <PointFields
          v-if="takeUp.how === 'arm'"
          :model-value="takeUp.pivot"
          :name="`${key}_pivot`"
          :wheels="shafts"
          @update:model-value="takeUp = { ...takeUp, pivot: $event as typeof takeUp.pivot }"
        />
        <MeasureField
          :model-value="takeUp.tighten!"
          :name="`${key}_tighten`"
          field="travel_out"
          label="Can still tighten by"
          @update:model-value="takeUp = { ...takeUp, tighten: $event }"
        />
        <MeasureField
          :model-value="takeUp.slacken!"
          :name="`${key}_slacken`"
          field="travel_in"
          label="…and slacken by"
          @update:model-value="takeUp = { ...takeUp, slacken: $event }"
        />
      </template>
    </template>
  </fieldset>
</template>

<style src="../ask.css" scoped></style>
<style src="./wheels.css" scoped></style>
