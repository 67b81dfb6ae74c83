<script setup lang="ts">
import { computed } from 'vue'

import type { Toothed } from '../../api/client'
import { inSystem } from '../../settings'
import WordField from '../../stations/survey/WordField.vue'
import MeasureField from '../../sheet/MeasureField.vue'
import VerdictNotes from '../../sheet/VerdictNotes.vue'
import type { ToothedForm } from '../../sheet/form'

/** The drive unit of an overhead conveyor: dogs against the conveyor chain's rollers, drawn along the track. */
const dogs = defineModel<ToothedForm['dogs']>({ required: true })
const { found, names } = defineProps<{ found: Toothed['dogs']; names: { value: string; label: string }[] }>()
const words = (...said: string[]) => [
  { value: '', label: 'not looked at yet' },
  ...said.map((s) => ({ value: s, label: s })),
]
const forged = computed(() => [{ value: '', label: 'not known' }, ...names.filter((n) => n.value.startsWith('X-'))])
const WIDTH = 372
const scene = computed(() => {
  if (!found?.dogs_at_m.length) return null
  const far = Math.max(...found.dogs_at_m, ...found.rollers_at_m)
  const scale = (WIDTH - 60) / Math.max(far, 1e-6)
  const r = Math.min(13, (0.28 * (WIDTH - 60)) / found.dogs_at_m.length)
  return {
    r,
    dogs: found.dogs_at_m.map((m) => 24 + m * scale),
    rollers: found.rollers_at_m.map((m, i) => ({
      x: 24 + m * scale + r,
      touching: Math.abs(m - (found.dogs_at_m[i] ?? 0)) < 1e-6,
    })),
  }
})
</script>

<template>
  <fieldset>
    <legend>Dogs that push a conveyor chain</legend>
    <MeasureField
      v-model="dogs.dog_span"
      name="dog_span"
      field="pitch_span"
      label="Over several dogs"
      hint="face to face"
    />
    <WordField v-model="dogs.dog_count" name="dog_count" label="…dogs between" />
    <MeasureField
      v-model="dogs.conveyor_span"
      name="conveyor_span"
      field="pitch_span"
      label="Over conveyor pitches"
      hint="ten or more"
    />
    <WordField v-model="dogs.conveyor_count" name="conveyor_count" label="…pitches between" />
    <WordField
      v-model="dogs.pitches_per_dog"
      name="pitches_per_dog"
      label="Conveyor pitches to a dog"
      placeholder="1"
    />
    <WordField v-model="dogs.dogs_engaged" name="dogs_engaged" label="Dogs in at once" placeholder="3" />
    <WordField v-model="dogs.conveyor" name="conveyor" label="Conveyor chain" :options="forged" />
    <WordField
      v-model="dogs.bears_on"
      name="bears_on"
      label="Dogs push on the"
      :options="words('horizontal rollers', 'vertical rollers')"
    />
    <WordField
      v-model="dogs.take_up_side"
      name="take_up_side"
      label="Take-up on the"
      :options="words('outgoing slack side', 'incoming tight side')"
    />
    <WordField
      v-model="dogs.pressure_plate"
      name="pressure_plate"
      label="Pressure plate above"
      :options="words('there', 'worn through', 'missing')"
    />
    <WordField
      v-model="dogs.wear_strips"
      name="wear_strips"
      label="Wear strips below"
      :options="words('there', 'worn through', 'missing')"
    />
  </fieldset>
  <svg
    v-if="scene && found"
    class="track"
    :viewBox="`0 0 ${WIDTH} 96`"
    role="img"
    :aria-label="`${found.dogs_at_m.length} dogs against the conveyor's rollers, moving right; ${scene.rollers.filter((r) => r.touching).length} touch`"
  >
    <line x1="6" y1="58" :x2="WIDTH - 6" y2="58" class="chain" />
    <path :d="`M ${WIDTH - 30} 88 h 20 l -6 -4 m 6 4 l -6 4`" class="way" />
    <g v-for="(x, i) in scene.dogs" :key="i">
      <path :d="`M ${x} 20 v 30 l -14 8 h -6 v -6 l 12 -32 z`" class="dog" />
    </g>
    <circle
      v-for="(p, i) in scene.rollers"
      :key="`r${i}`"
      :cx="p.x"
      cy="36"
      :r="scene.r"
      class="roller"
      :class="{ touching: p.touching }"
    />
    <text x="6" y="90">
      dogs {{ found.dog_pitch ? inSystem(found.dog_pitch) : '' }}, rollers
      {{ found.roller_pitch ? inSystem(found.roller_pitch) : '' }}
    </text>
  </svg>
  <VerdictNotes v-if="found" :verdicts="found.verdicts" fold />
</template>

<style src="../../stations/survey/ask/ask.css" scoped></style>
<style scoped>
.track {
  width: 100%;
  background: var(--paper);
  border: 1px solid var(--hair);
}
.chain {
  stroke: var(--ink-2);
  stroke-width: 3;
  stroke-dasharray: 8 3;
}
.way {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.6;
}
.dog {
  fill: var(--ink);
}
.roller {
  fill: var(--sheet);
  stroke: var(--quench);
  stroke-width: 2;
}
.roller.touching {
  stroke: var(--ember);
  stroke-width: 3;
}
text {
  font-size: 13px;
  fill: var(--ink-2);
}
</style>
