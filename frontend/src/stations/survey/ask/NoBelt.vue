<script setup lang="ts">
import { computed, inject } from 'vue'

import { api, type Choices, unwrap } from '../../../api/client'
import { inSystem, say } from '../../../settings'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import { trimmed } from '../../../sheet/form'
import MeasureField from '../../../sheet/MeasureField.vue'
import { useAnswer } from '../../../sheet/useAnswer'
import { sheetKey } from '../../../sheet/useSheet'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import { findKey } from '../useFind'
import WordField from '../WordField.vue'

/** No belt at all: from wheels, centres and slide to the window of lengths and the belts inside it. The fields are the survey's own. */
const { choices } = defineProps<{ choices: Choices }>()
const emit = defineEmits<{ choose: [designation: string, section: string] }>()
const state = inject(sheetKey)!
const find = inject(findKey)!
const survey = computed(() => state.form.value.survey)
const q = computed(() => state.sheaves.value.quantities)
const c = computed(() => state.sheaves.value.choices)
const stage = state.first
const asked = computed(() => ({ survey: survey.value, slack_clutch: find.slackClutch.value }))
const { answer, unreachable, again } = useAnswer(asked, (signal) =>
  unwrap(api.POST('/api/calc/length-window', { body: trimmed(asked.value), signal })),
)
const window = computed(() => answer.value?.window)
/** Without a belt these two are told another way. */
const NEXT: Record<string, string> = {
  section: 'Which section? Measure the groove under “Which belt?”',
  centre_distance: 'Tape the centres with the motor about the middle of its slide',
}
const next = computed(() => {
  const first = answer.value?.wanted[0] ?? ''
  return NEXT[first] ?? choices.wanted[first]?.next
})
const BASIS = [
  { value: 'outside', label: 'outside' },
  { value: 'datum', label: 'datum (pitch)' },
]
</script>

<template>
  <div class="station" data-panel>
    <div class="slip" aria-live="polite">
      <VerdictNotes v-if="window" :verdicts="window.verdicts" />
      <p v-if="next" class="next">
        <b>Next: {{ say(next) }}</b>
      </p>
    </div>
    <CautionStrip :cautions="choices.cautions.survey" state="Machine isolated." />
    <fieldset>
      <legend>Measure, in this order</legend>
      <WordField v-model="c.section!" name="section" label="1 Section" wide :options="choices.sections" />
      <MeasureField v-model="q.driver_diameter!" name="driver_diameter" :label="`2 Driver, ${c.driver_basis}`" />
      <WordField v-model="c.driver_basis!" name="driver_basis" label="measured as" :options="BASIS" />
      <MeasureField v-model="q.driven_diameter!" name="driven_diameter" :label="`3 Driven, ${c.driven_basis}`" />
      <WordField v-model="c.driven_basis!" name="driven_basis" label="measured as" :options="BASIS" />
      <MeasureField v-model="q.centre_distance!" name="centre_distance" label="4 Centre distance" />
      <span />
      <MeasureField v-model="stage.travel_in" name="travel_in" label="5 Slides closer by" />
      <MeasureField v-model="stage.travel_out" name="travel_out" label="6 …and away by" />
    </fieldset>
    <el-checkbox v-model="find.slackClutch.value">The belt is the clutch: slack when it idles</el-checkbox>
    <template v-if="window">
      <p class="range">
        <span class="soft small">Length over the back (tape) that serves</span>
        <b>
          {{ inSystem({ us: window.shortest_us, si: window.shortest_si }) }} to
          {{ inSystem({ us: window.longest_us, si: window.longest_si }) }}
        </b>
        <span class="soft small"> datum {{ inSystem({ us: window.datum_us, si: window.datum_si }) }} </span>
      </p>
      <ul class="made">
        <li v-for="m in window.choices" :key="m.designation" :class="{ best: m.best }">
          <button
            type="button"
            class="bare pick"
            :aria-pressed="find.chosen.value === m.designation"
            @click="emit('choose', m.designation, c.section!)"
          >
            <b>{{ m.designation }}</b>
            <span class="small">
              <span v-if="m.best" class="ember">best</span>
              {{ m.room === 'good' ? '✓ room to fit and to take up' : `${m.fit_room ? '▲ ' : ''}${m.room}` }}
              <template v-if="!m.listed">· not on the list</template>
              <br />
              <span class="soft"
                >centres {{ inSystem({ us: m.centres_us, si: m.centres_si }) }}; slide it needs: {{ m.slide }}</span
              >
              <template v-if="m.fit_room">
                <br />
                <span class="soft">room to fit {{ m.fit_room }}; to take up {{ m.takeup_room }}</span>
              </template>
            </span>
          </button>
        </li>
      </ul>
    </template>
    <p v-if="unreachable" class="ember small" role="status">
      No answer from the server: what is shown is the last answer.
      <button class="bare" type="button" @click="again()"><u>Ask again</u></button>
    </p>
    <slot />
  </div>
</template>

<style src="./ask.css" scoped></style>
<style scoped>
.slip {
  display: grid;
  gap: 8px;
}
.next {
  border-left: 4px solid var(--ember);
  padding-left: 12px;
}
.range {
  display: grid;
  border-top: 1px solid var(--hair);
  padding-top: 10px;
}
.range b {
  font-size: 22px;
  font-stretch: 76%;
  font-weight: 640;
}
.made {
  list-style: none;
  margin: 0;
  padding: 0;
}
.made li {
  border-top: 1px solid var(--hair-2);
}
.pick {
  display: grid;
  grid-template-columns: 92px 1fr;
  gap: 10px;
  align-items: center;
  width: 100%;
  min-height: 52px;
  padding: 5px 8px;
}
.pick b {
  font-size: 18px;
  font-stretch: 76%;
}
.best {
  box-shadow: inset 3px 0 0 var(--ember);
}
.pick[aria-pressed='true'] {
  background: var(--paper);
}
</style>
