<script setup lang="ts">
import { computed, inject, ref, watch } from 'vue'

import { api, type Choices, type DriveOut, unwrap } from '../../../api/client'
import { inSystem, say } from '../../../settings'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import { trimmed } from '../../../sheet/form'
import MeasureField from '../../../sheet/MeasureField.vue'
import { useAnswer } from '../../../sheet/useAnswer'
import { useAnswers } from '../../../sheet/useAnswers'
import { sheetKey } from '../../../sheet/useSheet'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import KeepSurvey from '../../survey/KeepSurvey.vue'
import WordField from '../../survey/WordField.vue'
import MachineRows from '../MachineRows.vue'
import { speedAskKey } from '../useSpeedAsk'

/** An adjustable sheave, half turn by half turn: speed, and what the machine feels of each setting. */
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const state = inject(sheetKey)!
const asked = inject(speedAskKey)!
const survey = computed(() => state.form.value.survey)
const q = computed(() => state.sheaves.value.quantities)
const c = computed(() => state.sheaves.value.choices)
const body = computed(() => trimmed({ sheet: state.form.value, target: asked.value.target }))
const { answer } = useAnswer(body, (signal) =>
  unwrap(api.POST('/api/calc/speed/adjustable', { body: body.value, signal })),
)
useAnswers(answer)
const picked = ref<number | null>(null)
const at = computed(
  () =>
    answer.value?.settings.find((s) => s.turns === picked.value) ??
    answer.value?.settings.find((s) => s.nearest) ??
    answer.value?.settings.find((s) => s.now),
)
watch(
  () => answer.value?.settings.find((s) => s.nearest)?.turns,
  (now, before) => now !== before && (picked.value = null),
)
const machineBody = computed(() =>
  trimmed({
    sheet: state.form.value,
    machine: survey.value.machine,
    new_speed_rad_per_s: at.value?.speed_rad_per_s ?? null,
  }),
)
const { answer: felt } = useAnswer(machineBody, (signal) =>
  unwrap(api.POST('/api/calc/speed/machine', { body: machineBody.value, signal })),
)
const WHICH = [
  { value: '', label: 'none is' },
  { value: 'driver', label: 'the driver sheave' },
  { value: 'driven', label: 'the driven sheave' },
]
</script>

<template>
  <div class="station">
    <div aria-live="polite" class="stack">
      <VerdictNotes v-if="felt && at && felt.overloaded" :verdicts="felt.verdicts.filter((v) => v.tone === 'stop')" />
      <VerdictNotes v-if="answer" :verdicts="answer.verdicts" fold />
    </div>
    <CautionStrip :cautions="choices.cautions.survey" state="Machine isolated." />
    <fieldset>
      <legend>{{ say('The adjustable sheave') }}</legend>
      <WordField v-model="c.adjustable!" name="adjustable" label="Which one" :options="WHICH" />
      <template v-if="c.adjustable">
        <MeasureField v-model="q.open_turns!" name="open_turns" label="Turns open now" hint="from closed" />
        <MeasureField v-model="q.most_turns!" name="most_turns" label="Opens at most" hint="5 if not said" />
        <MeasureField v-model="q.turn_drop!" name="turn_drop" label="Diameter a turn" hint="0.2 in if not said" />
        <MeasureField v-model="asked.target" name="target" field="target_speed" label="Speed wanted" />
      </template>
    </fieldset>
    <div v-if="answer?.settings.length" class="ladder" role="radiogroup" aria-label="Turns open">
      <button
        v-for="s in answer.settings"
        :key="s.turns"
        type="button"
        role="radio"
        class="bare rung"
        :class="{ off: !s.usable }"
        :aria-checked="at?.turns === s.turns"
        @click="picked = s.turns"
      >
        <span class="open" aria-hidden="true"
          ><i :style="{ width: `${20 + 60 * (s.turns / (answer.settings[answer.settings.length - 1]!.turns || 1))}%` }"
        /></span>
        <b>{{ s.turns }}</b>
        <span>{{ inSystem(s.diameter) }}</span>
        <span class="rpm">{{ inSystem(s.speed) }}</span>
        <span class="small">
          <span v-if="s.now">as it stands</span>
          <span v-else-if="s.nearest" class="ember">nearest</span>
          <span v-else-if="!s.usable" class="soft">{{ s.turns === 0 ? 'closed: never' : 'open: never' }}</span>
        </span>
      </button>
    </div>
    <p v-if="answer?.shift" class="small soft">
      To get to the nearest one the groove's middle moves {{ inSystem(answer.shift) }} along the shaft: align again.
    </p>
    <MachineRows v-if="felt && at && answer?.settings.length" :rows="felt.rows" :at="`${at.turns} turns open`" />
    <p v-if="answer?.settings.length && felt && !felt.rows.length" class="small soft">
      Say under “The machine” what is driven: air, power and amps then stand here for each half turn.
    </p>
  </div>
  <KeepSurvey :drive="drive" usual="adjustable sheave read" />
</template>

<style src="../../survey/ask/ask.css" scoped></style>
<style scoped>
.ladder {
  display: grid;
}
.rung {
  display: grid;
  grid-template-columns: 54px 34px 74px 84px 1fr;
  gap: 8px;
  align-items: center;
  min-height: 44px;
  border-top: 1px solid var(--hair-2);
  text-align: left;
  padding: 0 6px;
}
.rung[aria-checked='true'] {
  background: var(--paper);
  box-shadow: inset 3px 0 0 var(--ember);
}
.rung.off {
  color: var(--ink-2);
}
.rung b,
.rpm {
  font-size: 17px;
  font-stretch: 78%;
  font-weight: 640;
}
/* The two flanges, as far apart as the sheave is open. */
.open {
  display: grid;
  place-items: center;
  height: 22px;
}
.open i {
  display: block;
  height: 100%;
  border-left: 5px solid var(--ink-2);
  border-right: 5px solid var(--ink-2);
  transform: perspective(60px) rotateX(24deg);
}
</style>
