<script setup lang="ts">
import { computed, inject } from 'vue'

import type { Choices } from '../../../api/client'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import MeasureField from '../../../sheet/MeasureField.vue'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import { say } from '../../../settings'
import { findKey } from '../useFind'
import WordField from '../WordField.vue'
import CandidateLadder from './CandidateLadder.vue'

/** Which belt is this: any few measurements of belt or wheel, ranked candidates, and the one next measurement. */
const { choices, ladder } = defineProps<{ choices: Choices; ladder: boolean }>()
const emit = defineEmits<{ choose: [designation: string, section: string] }>()
const find = inject(findKey)!
find.answerFields()
const { form, identified, chosen } = find
const q = computed(() => form.value.quantities)
const w = computed(() => form.value.words)
const answer = computed(() => identified.answer.value?.answer)
const next = computed(() => answer.value?.next)
const TOOLS = [
  { value: 'caliper', label: 'callipers' },
  { value: 'rule', label: 'a steel rule' },
  { value: 'tape', label: 'a tape' },
]
const MADE = [
  { value: '', label: 'not looked at yet' },
  { value: 'wrapped', label: 'wrapped in cloth' },
  { value: 'cogged', label: 'raw edges, notched underneath' },
  { value: 'joined', label: 'several V joined by a back' },
  { value: 'hexagonal', label: 'six-sided' },
  { value: 'ribbed', label: 'thin, with small ribs' },
  { value: 'link', label: 'links' },
  { value: 'aramid', label: 'tan cords (aramid), dry cover' },
]
const MACHINES = [
  { value: '', label: 'not said' },
  { value: 'plant', label: 'plant or shop, inch built' },
  { value: 'metric', label: 'metric built' },
  { value: 'light', label: 'light, fractional horsepower' },
  { value: 'farm', label: 'farm' },
  { value: 'deck', label: 'mower deck, or clutched by its slack belt' },
]
function jump(): void {
  const field = next.value?.field
  if (!field) return
  const target = document.getElementById(`f-${field}`)
  target?.focus()
  target?.scrollIntoView({ block: 'center' })
}
</script>

<template>
  <div class="station" data-panel>
    <div class="slip" aria-live="polite">
      <VerdictNotes v-if="answer && find.anything.value" :verdicts="[answer.verdict]" />
      <button v-if="next" type="button" class="next" @click="jump">
        <b>Next: {{ say(next.how) }}</b>
        <span v-for="line in next.says" :key="line">{{ say(line) }}</span>
      </button>
    </div>
    <slot name="part-number" />
    <CautionStrip :cautions="choices.cautions.survey" state="Machine isolated." />
    <fieldset>
      <legend>The belt in hand</legend>
      <WordField v-model="w.tool!" name="tool" label="Sizes taken with" :options="TOOLS" />
      <WordField v-model="w.construction!" name="construction" label="How it is made" :options="MADE" />
      <MeasureField v-model="q.top_width!" name="top_width" label="1 Top width" hint="widest" />
      <MeasureField v-model="q.thickness!" name="thickness" label="2 Thickness" />
      <MeasureField v-model="q.outside_length!" name="outside_length" label="3 Length over the back" hint="tape" />
      <WordField
        v-model="w.label!"
        name="label"
        label="4 Label, or a part of it"
        placeholder="5VX8?0: ? = unreadable"
      />
      <WordField
        v-if="w.construction === 'joined' || w.construction === 'ribbed'"
        v-model="w.ribs!"
        name="ribs"
        label="Ribs or belts joined"
      />
      <MeasureField v-model="q.belt_angle!" name="belt_angle" label="Angle of the sides" hint="template" />
      <MeasureField v-model="q.inside_length!" name="inside_length" label="Inside length" hint="tape" />
      <MeasureField v-model="q.laid_out_length!" name="laid_out_length" label="Broken: laid out flat" />
    </fieldset>
    <fieldset>
      <legend>
        {{ say('The sheave') }}
        <span class="soft small">when the belt is gone</span>
      </legend>
      <MeasureField v-model="q.groove_width!" name="groove_width" label="1 Groove top width" />
      <MeasureField v-model="q.wheel_diameter!" name="wheel_diameter" label="2 Outside diameter" />
      <MeasureField v-model="q.groove_depth!" name="groove_depth" label="3 Groove depth" />
      <MeasureField v-model="q.groove_spacing!" name="groove_spacing" label="4 Groove to groove" />
      <WordField v-model="w.marks!" name="marks" label="Marks on it" placeholder="2B60, SPB 200-3" />
      <MeasureField v-model="q.groove_angle!" name="groove_angle" label="Groove angle" hint="gauge" />
      <MeasureField v-model="q.bore!" name="bore" label="Bore" />
      <MeasureField v-model="q.key_width!" name="key_width" label="Key width" />
      <MeasureField v-model="q.hub_large_end!" name="hub_large_end" label="Bushing taper, large end" />
    </fieldset>
    <ul v-if="answer?.hub.length" class="hub small">
      <li v-for="line in answer.hub" :key="line">{{ say(line) }}</li>
    </ul>
    <fieldset>
      <legend>The machine</legend>
      <WordField v-model="w.machine!" name="machine" label="What it is off" wide :options="MACHINES" />
    </fieldset>
    <CandidateLadder
      v-if="ladder && identified.answer.value && find.anything.value"
      :identified="identified.answer.value"
      :chosen="chosen"
      @choose="(name, section) => emit('choose', name, section)"
    />
    <p v-if="identified.unreachable.value" class="ember small" role="status">
      No answer from the server: the candidates shown are the last ones.
      <button class="bare" type="button" @click="identified.again()"><u>Ask again</u></button>
    </p>
    <slot />
  </div>
</template>

<style scoped>
.slip {
  display: grid;
  gap: 10px;
}
.next {
  display: grid;
  gap: 2px;
  text-align: left;
  border: 1px solid var(--ember);
  border-radius: 3px;
  background: var(--ember-tint);
  color: var(--ink);
  padding: 9px 12px;
  cursor: pointer;
  font-size: 14.5px;
}
.next b {
  font-weight: 620;
}
.hub {
  margin: 0;
  padding-left: 1.2em;
  display: grid;
  gap: 4px;
}
</style>
<style src="./ask.css" scoped></style>
