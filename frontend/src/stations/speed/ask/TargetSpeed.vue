<script setup lang="ts">
import { computed, inject, ref, watch } from 'vue'

import { api, type Choices, type DriveOut, unwrap } from '../../../api/client'
import { useMayWrite } from '../../../api/queries'
import type { components } from '../../../api/schema'
import { inSystem, say } from '../../../settings'
import { blank, completedFitted, type Survey, trimmed, type WholeSheet } from '../../../sheet/form'
import MeasureField from '../../../sheet/MeasureField.vue'
import { useAnswer } from '../../../sheet/useAnswer'
import { useAnswers } from '../../../sheet/useAnswers'
import { useKeepSurvey } from '../../../sheet/useKeepSurvey'
import { sheetKey } from '../../../sheet/useSheet'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import WordField from '../../survey/WordField.vue'
import LastSpeed from '../LastSpeed.vue'
import { speedAskKey } from '../useSpeedAsk'

/** Stock wheels for a target speed; one shown on the drawing to scale, proposed, or written into the survey. */
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const emit = defineEmits<{ preview: [form: WholeSheet | null]; make: [role: 'driver' | 'driven', outside_m: number] }>()
type Pair = components['schemas']['PairOut']
const state = inject(sheetKey)!
const asked = inject(speedAskKey)!
const mayWrite = useMayWrite()
const body = computed(() =>
  trimmed({
    sheet: state.form.value,
    target: asked.value.target,
    tolerance: asked.value.tolerance,
    keep: asked.value.keep,
    meaning: asked.value.meaning,
  }),
)
const { answer } = useAnswer(body, (signal) => unwrap(api.POST('/api/calc/speed/target', { body: body.value, signal })))
useAnswers(answer)
const KEEP = [
  { value: '', label: 'either may change' },
  { value: 'driver', label: 'the driver stays' },
  { value: 'driven', label: 'the driven stays' },
]
const MEANING = [
  { value: '', label: 'not settled yet' },
  { value: 'slip', label: 'the belt slips' },
  { value: 'diameter', label: 'a diameter is wrong' },
]
const nameOf = (p: Pair) => `${p.driver} / ${p.driven}`
const chosen = ref('')
const pair = computed(() => answer.value?.pairs.find((p) => nameOf(p) === chosen.value))

/** The survey with the pair on it. */
function surveyWith(p: Pair): Survey {
  const survey = JSON.parse(JSON.stringify(state.form.value.survey)) as Survey
  survey.stages[0]!.fitted = completedFitted(drive.family, p.fitted)
  return survey
}
/** What the machine feels of the pair: an overload stops it. */
const feltBody = computed(() =>
  pair.value
    ? trimmed({
        sheet: state.form.value,
        machine: state.form.value.survey.machine,
        new_speed_rad_per_s: pair.value.speed_rad_per_s,
      })
    : null,
)
const { answer: felt } = useAnswer(feltBody, async (signal) =>
  feltBody.value ? unwrap(api.POST('/api/calc/speed/machine', { body: feltBody.value, signal })) : null,
)
const feltOf = computed(() => (pair.value && felt.value?.rows.length ? felt.value : null))
watch(pair, (p) =>
  emit('preview', p ? { ...state.form.value, survey: surveyWith(p), tachometer: blank('tachometer') } : null),
)

const keeper = useKeepSurvey(() => drive, state)
const done = ref('')
async function propose(p: Pair): Promise<void> {
  done.value = ''
  const why = `for ${inSystem(p.speed)}: ${p.driver} and ${p.driven}${p.belt ? `, ${p.belt}` : ''}`
  if (await keeper.propose(surveyWith(p), why)) done.value = 'Proposed: it stands in the log until it is fitted.'
}
function intoSurvey(p: Pair): void {
  state.form.value.survey = surveyWith(p)
  done.value = 'In the survey, not kept yet.'
}
const percent = (share: number) => `${share > 0 ? '+' : ''}${(share * 100).toFixed(1)} %`
</script>

<template>
  <div class="station">
    <div aria-live="polite" class="stack">
      <VerdictNotes v-if="answer" :verdicts="answer.verdicts" />
    </div>
    <LastSpeed :drive="drive" />
    <fieldset>
      <legend>The speed it should have</legend>
      <MeasureField v-model="asked.target" name="target" field="target_speed" label="Driven shaft" />
      <WordField v-model="asked.tolerance" name="tolerance" label="Within, percent" placeholder="3" />
      <WordField v-model="asked.keep" name="keep" label="Wheels" :options="KEEP" wide />
      <WordField
        v-if="answer?.held || asked.meaning"
        v-model="asked.meaning"
        name="meaning"
        label="What the tachometer’s reading means"
        :options="MEANING"
        wide
      />
    </fieldset>
    <ul v-if="answer?.pairs.length" class="pairs">
      <li v-for="p in answer.pairs" :key="nameOf(p)">
        <button
          type="button"
          class="bare pick"
          :aria-pressed="chosen === nameOf(p)"
          @click="chosen = chosen === nameOf(p) ? '' : nameOf(p)"
        >
          <span class="speed"
            ><b>{{ inSystem(p.speed) }}</b> <span class="small soft">{{ percent(p.off) }}</span></span
          >
          <span>
            <span :class="{ ember: p.changes.includes('driver') }">{{
              inSystem({ us: p.driver, si: p.driver_si })
            }}</span>
            →
            <span :class="{ quench: p.changes.includes('driven') }">{{
              inSystem({ us: p.driven, si: p.driven_si })
            }}</span>
            <span class="small soft">
              · {{ p.changes.length === 2 ? 'both new' : p.changes.length ? `new ${p.changes[0]}` : 'as it is' }}
            </span>
            <br />
            <span class="small">
              <template v-if="p.belt">{{ p.belt_stays ? `✓ ${p.belt} stays` : p.belt }}</template>
              <template v-if="p.rated">{{ p.belt ? ' · ' : '' }}{{ p.rated }}</template>
              <template v-for="a in p.against" :key="a"
                ><br v-if="p.belt || p.rated" /><span class="ember">▲ {{ say(a) }}</span></template
              >
            </span>
          </span>
        </button>
        <div v-if="chosen === nameOf(p)" class="what">
          <p class="small soft">
            <template v-if="p.centre"
              >Centres {{ inSystem(p.centre)
              }}{{ p.slide && p.slide !== 'none' ? `, the motor ${p.slide} from where it stands` : '' }}.
            </template>
            <template v-if="p.belt_speed">Belt {{ inSystem(p.belt_speed) }}. </template>
            <template v-if="p.wrap">Wrap {{ p.wrap }}.</template>
            It stands on the drawing, to scale.
          </p>
          <VerdictNotes v-if="feltOf" :verdicts="feltOf.verdicts.filter((v) => v.topic === 'machine')" />
          <p class="row">
            <el-button
              v-if="mayWrite && !feltOf?.overloaded"
              type="primary"
              :loading="keeper.busy.value"
              @click="propose(p)"
              >Propose it</el-button
            >
            <el-button @click="intoSurvey(p)">Write it into the survey</el-button>
          </p>
        </div>
      </li>
    </ul>
    <p v-if="done" role="status">✓ {{ done }}</p>
    <p v-if="keeper.problem.value" class="ember" role="alert">Not kept: {{ keeper.problem.value.detail }}</p>
    <fieldset v-if="answer?.exact_driver && answer.exact_driven && !answer.pairs[0]?.driver_teeth">
      <legend>Or turn one down, or cast one</legend>
      <p class="aside">
        <span class="small soft">driver, its line</span>
        <b>{{ inSystem(answer.exact_driver) }}</b>
        <button
          v-if="drive.kind.turns_open"
          type="button"
          class="bare"
          @click="emit('make', 'driver', answer.exact_driver_m!)"
        >
          <u>its sizes</u>
        </button>
      </p>
      <p class="aside">
        <span class="small soft">or driven, its line</span>
        <b>{{ inSystem(answer.exact_driven) }}</b>
        <button
          v-if="drive.kind.turns_open"
          type="button"
          class="bare"
          @click="emit('make', 'driven', answer.exact_driven_m!)"
        >
          <u>its sizes</u>
        </button>
      </p>
    </fieldset>
    <p class="small soft">{{ choices.cautions.deference }}</p>
  </div>
</template>

<style src="../../survey/ask/ask.css" scoped></style>
<style src="../speed.css" scoped></style>
<style scoped>
.pairs {
  list-style: none;
  margin: 0;
  padding: 0;
}
.pairs li {
  border-top: 1px solid var(--hair-2);
}
.pick {
  display: grid;
  grid-template-columns: 92px 1fr;
  gap: 10px;
  align-items: start;
  width: 100%;
  min-height: 52px;
  padding: 7px 8px;
  text-align: left;
}
.speed {
  display: grid;
}
.speed b {
  font-size: 18px;
  font-stretch: 76%;
}
.pick[aria-pressed='true'] {
  background: var(--paper);
  box-shadow: inset 3px 0 0 var(--ember);
}
.what {
  padding: 0 8px 10px;
  background: var(--paper);
}
</style>
