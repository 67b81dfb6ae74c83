<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, inject } from 'vue'

import type { Choices } from '../../../api/client'
import { inSystem, say } from '../../../settings'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import MeasureField from '../../../sheet/MeasureField.vue'
import { useAnswers } from '../../../sheet/useAnswers'
import WordField from '../../survey/WordField.vue'
import BeforeFields from '../BeforeFields.vue'
import CandidateSlip from '../CandidateSlip.vue'
import DriveList from '../DriveList.vue'
import { FAMILY_WORDS } from '../../../drives/marks'
import { sizeDeskKey, useSizeChoices } from '../useSizeDesk'
import WeightField from '../WeightField.vue'

/** What is asked of the drive; what does it; what ruled the rest out. */
const {
  choices,
  record = true,
  canCopy = false,
} = defineProps<{ choices: Choices; record?: boolean; canCopy?: boolean }>()
const emit = defineEmits<{ propose: [key: string]; write: [key: string]; compare: []; copy: [] }>()
const desk = inject(sizeDeskKey)!
useAnswers(desk.answer)
const { data: sizes } = useSizeChoices()
const narrow = useMediaQuery('(max-width: 760px)')
const form = computed(() => desk.asked.value.size)
const q = computed(() => form.value.quantities)
const w = computed(() => form.value.words)
const answer = desk.answer

const taken = (key: string): string => {
  const said = answer.value?.from_survey[key]
  return said && !q.value[key]?.text ? `survey ${inSystem(said)}` : ''
}
const classes = computed(() => [
  { value: '', label: answer.value?.from_survey.driven_class ? 'as surveyed' : '–' },
  ...choices.driven_classes.map((c) => ({ value: c.value, label: c.label })),
])
const START = [
  { value: '', label: 'as surveyed, or ordinary' },
  { value: 'normal', label: 'ordinary motor or many-cylinder engine' },
  { value: 'high', label: 'hard start, or one cylinder' },
]
const STOCK_WORDS = {
  common: 'common sizes, assumed to be had',
  list: 'your own list',
  shelf: 'what lies on your shelf',
} as const
const stock = computed({
  get: () => form.value.stock as string,
  set: (which) => (form.value.stock = which as keyof typeof STOCK_WORDS),
})
const YES = [
  { value: '', label: 'no' },
  { value: 'yes', label: 'yes' },
]
const MOTOR = [
  { value: '', label: 'not a motor, or not asked' },
  { value: 'yes', label: 'electric motor' },
]
const frames = computed(() => [
  { value: '', label: 'not known' },
  ...(sizes.value?.frames ?? []).map((f) => ({ value: f, label: f })),
])
const orSurveyed = (words: string[]) => [
  { value: '', label: 'as surveyed, or none' },
  ...words.map((word) => ({ value: word, label: word })),
]
const fits = computed(() => {
  const found = new Map<string, string>()
  for (const k of sizes.value?.kinds ?? [])
    if (!found.has(k.fits)) found.set(k.fits, `${k.fits} (${FAMILY_WORDS[k.family]})`)
  return [{ value: '', label: 'may be new' }, ...[...found].map(([value, label]) => ({ value, label }))]
})
const toothed = (fit: string) => sizes.value?.kinds.find((k) => k.fits === fit)?.toothed ?? false
const allowed = (family: string) =>
  (form.value.families.length ? form.value.families : (sizes.value?.usual_families ?? [])).includes(family)
function allow(family: string, on: boolean): void {
  const now = new Set(form.value.families.length ? form.value.families : (sizes.value?.usual_families ?? []))
  if (on) now.add(family)
  else now.delete(family)
  // None at all would mean the usual ones again: the last one stays.
  if (now.size) form.value.families = [...now]
}
const weight = (wish: string) =>
  form.value.weights[wish] ?? (Object.keys(form.value.weights).length ? 0 : (sizes.value?.usual_weights[wish] ?? 0))
function weigh(wish: string, value: number): void {
  const usual = Object.keys(form.value.weights).length ? form.value.weights : { ...sizes.value?.usual_weights }
  form.value.weights = { ...usual, [wish]: value }
}
const most = computed(() => Math.max(1, ...(answer.value?.killed.map((k) => k.count) ?? [])))
const set = (keys: string[]) =>
  keys.filter((k) => q.value[k]?.text || (w.value[k] && !['none', ''].includes(w.value[k]!))).length
const said = (keys: string[]) => (set(keys) ? `${set(keys)} set` : 'nothing set')
const count = (n: number) => n.toLocaleString('en')
</script>

<template>
  <div class="station">
    <div aria-live="polite" class="head">
      <template v-if="answer && !answer.missing.length && !answer.problems.length">
        <h2>{{ count(answer.feasible) }} would do</h2>
        <p class="small soft">
          of {{ count(answer.looked_at) }} combinations of {{ STOCK_WORDS[form.stock] }}:
          <template v-for="(n, f, i) in answer.by_family" :key="f"
            >{{ i ? ', ' : '' }}{{ count(n) }} {{ FAMILY_WORDS[f] }}</template
          >
        </p>
      </template>
      <p v-for="n in answer?.not_judged ?? []" :key="n" class="missing">▲ {{ say(n) }}</p>
      <p v-if="desk.searches.value" class="soft" role="status">Searching…</p>
      <p v-else-if="answer?.missing.length" class="missing">
        <b>Still to say:</b> {{ say(answer.missing.join('; ')) }}.
      </p>
      <p v-if="desk.unreachable.value" class="ember small" role="status">
        No answer from the server: what stands here is the last one.
        <button class="bare" type="button" @click="desk.again()"><u>Ask again</u></button>
      </p>
    </div>
    <WordField
      v-if="sizes?.listed_parts"
      v-model="stock"
      name="stock"
      label="Choose from"
      :options="Object.entries(STOCK_WORDS).map(([value, label]) => ({ value, label }))"
    />
    <p v-else class="small soft">
      Chosen from common sizes, assumed to be had; or bring
      <router-link to="/bench/lists">a list of your own</router-link>.
    </p>
    <p v-if="sizes?.own_ratings.length" class="small soft">
      Rated by <router-link to="/bench/lists/ratings">tables of your own</router-link>:
      {{ sizes.own_ratings.join(', ') }}.
    </p>
    <section v-if="answer?.eased.length" class="eased">
      <h3>What relaxing each limit would allow</h3>
      <ul>
        <li v-for="e in answer.eased" :key="e.constraint">
          <b>{{ say(e.says) }}</b>: {{ count(e.lets_in) }} would do
        </li>
      </ul>
    </section>
    <CandidateSlip
      v-if="desk.chosen.value"
      :candidate="desk.chosen.value"
      :record="record"
      :beside="desk.asked.value.beside.includes(desk.chosen.value.key)"
      @propose="emit('propose', $event)"
      @write="emit('write', $event)"
      @beside="desk.besides($event)"
      @close="desk.asked.value.chosen = ''"
    >
      <slot name="candidate" :candidate="desk.chosen.value" />
    </CandidateSlip>
    <p v-if="desk.asked.value.beside.length > 1" class="row">
      <el-button @click="emit('compare')">Compare the {{ desk.asked.value.beside.length }} side by side</el-button>
    </p>
    <DriveList
      v-if="narrow && answer?.listed.length"
      :answer="answer"
      :chosen="desk.asked.value.chosen"
      :beside="desk.asked.value.beside"
      @choose="desk.choose"
      @beside="desk.besides"
    />
    <fieldset>
      <legend>What it must do</legend>
      <MeasureField
        v-model="q.power!"
        name="power"
        field="driver_power"
        label="Driver power"
        :hint="taken('power') || 'plate'"
      />
      <MeasureField
        v-model="q.driver_speed!"
        name="driver_speed"
        label="Driver speed"
        :hint="taken('driver_speed') || 'plate'"
      />
      <MeasureField
        v-model="q.driven_speed!"
        name="driven_speed"
        field="design_speed"
        label="Driven speed"
        :hint="taken('driven_speed') || 'manual'"
      />
      <WordField v-model="w.tolerance!" name="tolerance" label="Within, percent" placeholder="3" />
      <WordField v-model="w.driven_class!" name="driven_class" label="Kind of machine" :options="classes" wide />
      <MeasureField v-model="q.hours!" name="hours" field="hours_per_day" label="Hours a day" :hint="taken('hours')" />
      <WordField v-model="w.driver_class!" name="driver_class" label="Driver" :options="START" />
      <WordField
        v-model="w.surroundings!"
        name="surroundings"
        label="Surroundings"
        :options="orSurveyed(sizes?.surroundings ?? [])"
      />
      <WordField v-model="w.starts!" name="starts" label="Starts" :options="orSurveyed(sizes?.starts ?? [])" />
      <WordField v-model="w.ambient!" name="ambient" label="Ambient temperature" placeholder="70 F or 21 C" />
    </fieldset>
    <fieldset>
      <legend>Room</legend>
      <MeasureField
        v-model="q.centre_low!"
        name="centre_low"
        field="centre_distance"
        label="Centres from"
        :hint="taken('centre_low')"
      />
      <MeasureField
        v-model="q.centre_high!"
        name="centre_high"
        field="centre_distance"
        label="to"
        :hint="taken('centre_high')"
      />
    </fieldset>
    <details class="fold">
      <summary>
        Room for wheels and width
        <span class="soft small">{{ said(['driver_most', 'driven_most', 'width_most']) }}</span>
      </summary>
      <fieldset>
        <MeasureField v-model="q.driver_most!" name="driver_most" field="driver_diameter" label="Driver at most" />
        <MeasureField v-model="q.driven_most!" name="driven_most" field="driven_diameter" label="Driven at most" />
        <MeasureField
          v-model="q.width_most!"
          name="width_most"
          field="drive_width"
          label="Width at most"
          hint="over the belts"
        />
      </fieldset>
    </details>
    <details class="fold">
      <summary>
        Shafts and motor
        <span class="soft small">{{ said(['driver_shaft', 'driven_shaft', 'pull_most', 'motor', 'frame']) }}</span>
      </summary>
      <fieldset>
        <MeasureField v-model="q.driver_shaft!" name="driver_shaft" field="shaft_diameter" label="Driver shaft" />
        <MeasureField v-model="q.driven_shaft!" name="driven_shaft" field="shaft_diameter" label="Driven shaft" />
        <WordField v-model="w.motor!" name="motor" label="The driver is" :options="MOTOR" />
        <WordField v-model="w.frame!" name="frame" label="Motor frame" :options="frames" />
        <MeasureField
          v-model="q.pull_most!"
          name="pull_most"
          field="shaft_pull"
          label="Pull at most"
          hint="on each shaft"
        />
      </fieldset>
    </details>
    <details class="fold">
      <summary>
        Belts and wheels
        <span class="soft small">{{
          said(['reserve', 'idler', 'keep_driver_fits', 'keep_driven_fits', 'least_teeth', 'fast_wheels'])
        }}</span>
      </summary>
      <fieldset>
        <div class="wide families" role="group" aria-label="Kinds of drive">
          <el-checkbox
            v-for="f in sizes?.families ?? []"
            :key="f"
            :model-value="allowed(f)"
            @change="allow(f, Boolean($event))"
          >
            {{ FAMILY_WORDS[f] }}
          </el-checkbox>
        </div>
        <WordField v-model="w.reserve!" name="reserve" label="Runs on with one belt gone" :options="YES" />
        <WordField v-model="w.idler!" name="idler" label="Idler" :options="orSurveyed(sizes?.idlers ?? [])" />
        <WordField v-model="w.least_teeth!" name="least_teeth" label="Sprocket teeth, at least" placeholder="17" />
        <WordField v-model="w.fast_wheels!" name="fast_wheels" label="Wheels balanced for speed" :options="YES" />
        <template v-for="side in ['driver', 'driven'] as const" :key="side">
          <WordField
            v-model="w[`keep_${side}_fits`]!"
            :name="`keep_${side}_fits`"
            :label="`The ${side} wheel stays`"
            :options="fits"
          />
          <WordField
            v-if="toothed(w[`keep_${side}_fits`]!)"
            v-model="w[`keep_${side}_teeth`]!"
            :name="`keep_${side}_teeth`"
            label="its teeth"
            placeholder="count them"
          />
          <MeasureField
            v-else
            v-model="q[`keep_${side}_outside`]!"
            :name="`keep_${side}_outside`"
            :field="`${side}_diameter`"
            label="its outside diameter"
          />
        </template>
      </fieldset>
    </details>
    <details class="fold">
      <summary>What counts <span class="soft small">orders the list</span></summary>
      <div class="weights">
        <WeightField
          v-for="(says, wish) in sizes?.wishes ?? {}"
          :key="wish"
          :name="String(wish)"
          :label="says"
          :value="weight(String(wish))"
          @weigh="weigh(String(wish), $event)"
        />
      </div>
      <p v-if="Object.keys(form.weights).length">
        <el-button size="small" @click="form.weights = {}">Reset</el-button>
      </p>
    </details>
    <details class="fold">
      <summary>
        Changing one kind for another
        <span class="soft small">{{ said(['before', 'load', 'days_a_year', 'price_kwh']) }}</span>
      </summary>
      <BeforeFields v-model="form.words" :record="record" />
    </details>
    <section v-if="answer?.killed.length" class="killed">
      <h3>What ruled out the rest</h3>
      <ul>
        <li v-for="k in answer.killed" :key="k.constraint">
          <span>{{ say(k.says) }}</span>
          <span class="bar" aria-hidden="true"
            ><i :style="{ width: `${Math.max(1, (100 * Math.log10(k.count + 1)) / Math.log10(most + 1))}%` }"
          /></span>
          <span class="n">{{ count(k.count) }}</span>
        </li>
      </ul>
      <p class="small soft">Counted under the first demand that each one failed. “Why not?” names the amounts.</p>
    </section>
    <p v-if="canCopy && answer && !answer.missing.length">
      <el-button @click="emit('copy')">Turn it over on the bench</el-button>
    </p>
    <CautionStrip :cautions="choices.cautions.size" state="Before anything is ordered." />
    <p class="small soft">{{ choices.cautions.deference }}</p>
    <p v-if="desk.answer.value?.listed[0]" class="sr" aria-live="polite">
      Best: {{ desk.answer.value.listed[0].name }}, pull {{ inSystem(desk.answer.value.listed[0].pull) }}
    </p>
  </div>
</template>

<style src="../../survey/ask/ask.css" scoped></style>
<style src="./whatWouldDo.css" scoped></style>
