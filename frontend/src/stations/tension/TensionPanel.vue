<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, inject, onUnmounted, ref, watch } from 'vue'

import type { Choices, DriveOut } from '../../api/client'
import SettlesNote from '../../open/SettlesNote.vue'
import { inSystem, say } from '../../settings'
import CautionStrip from '../../sheet/CautionStrip.vue'
import FigureValue from '../../sheet/FigureValue.vue'
import KeepReadingBar from '../../sheet/KeepReadingBar.vue'
import MeasureField from '../../sheet/MeasureField.vue'
import ReadingFoot from '../../sheet/ReadingFoot.vue'
import { useKeepReading } from '../../sheet/useKeepReading'
import { moreFiguresKey, sheetKey } from '../../sheet/useSheet'
import VerdictSlip from '../../sheet/VerdictSlip.vue'
import { ago } from '../../words'
import KeepSurvey from '../survey/KeepSurvey.vue'
import StageChoice from '../StageChoice.vue'
import WordField from '../survey/WordField.vue'
import HeldBy from './HeldBy.vue'
import MethodChoice from './MethodChoice.vue'
import StageLimits from './StageLimits.vue'
import TensionScale from './TensionScale.vue'
import { tensionKey } from './useTension'

/** How tight: what holds it, the window, a method and its reading, and what to do next; on any kind of drive, stage by stage. */
defineOptions({ inheritAttrs: false })
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const state = inject(sheetKey)!
const desk = inject(tensionKey)!
const { gauge, tight, method, stage, read } = desk
// The working of the station's own figures opens like any other's.
const more = inject(moreFiguresKey)!
watch(tight, (now) => (more.value = now?.figures ?? {}), { immediate: true })
onUnmounted(() => (more.value = {}))
const narrow = useMediaQuery('(max-width: 760px)')
const keeper = useKeepReading('belt tension', () => drive, state)
const { problem, kept, hourMeter, note, strand, wasSet, settles } = keeper
const figures = computed(() => tight.value?.figures ?? {})
/** What moves a run clear of what shakes it: slacker, tighter, one of the two, or neither. */
const clearOf = (n: { clear: { us: string; si: string } | null; clear_up: { us: string; si: string } | null }) =>
  [n.clear, n.clear_up].filter((t) => t !== null).map((t) => inSystem(t))
const missing = computed(() =>
  (state.train.value ? state.train.value.wanted : (state.sheet.value?.wanted ?? [])).map(
    (w) => choices.wanted[w]?.says ?? w,
  ),
)
const next = computed(() => {
  if (missing.value.length && !tight.value?.marks.some((m) => m.kind === 'band' || m.kind === 'manual'))
    return `Survey needs ${missing.value.join(', ')}`
  if (state.waits.value) return state.waits.value
  if (!tight.value) return 'Survey the wheels and where they stand first'
  if (tight.value.lacks) return tight.value.lacks
  return tight.value.values > 1 ? 'Read every belt of the set' : `Read it: ${method.value?.label ?? ''}`
})
const word = (key: string) =>
  computed({
    get: () => gauge.value.words[key] ?? '',
    set: (said: string) => (gauge.value.words[key] = said),
  })
const last = computed(() => desk.kept.value[0])
/** What stands with the stage was changed: its bar stays, with what became of it, until a reading is taken. */
const touched = ref(false)
watch(
  () => [state.dirty.value, read.value] as const,
  ([dirty, reading]) => (touched.value = !reading && (dirty || touched.value)),
  { immediate: true },
)
const shared = computed(() => (state.train.value?.shafts ?? []).filter((s) => s.name.includes(' and ')))
const rules = computed(() => tight.value?.marks.filter((m) => m.kind === 'rule') ?? [])
const spanOf = word('span_of')
const engaged = word('engaged')
const turned = word('turned')
const wrongTurns = computed(() => problem.value?.errors?.find((e) => e.field === 'turned')?.detail)
const clutching = computed(() => /idler/.test(stage.value.held_by))
/** What stands with the stage is asked once; the rest goes with the reading. */
const home = (stands?: boolean) => (stands ? stage.value.kept.quantities : gauge.value.quantities)
const at = (key: string, field: string) => desk.entry(gauge.value.quantities, key, field)
const each = (i: number) =>
  (tight.value?.values ?? 1) > 1
    ? `${tight.value?.one === 'rib' ? 'Band' : 'Belt'} ${i + 1}`
    : (method.value?.value ?? 'Reading')
</script>

<template>
  <div class="station">
    <VerdictSlip :topics="['window', 'manual']" :next="read ? '' : next" />
    <p v-if="last && !read" class="small last">
      Last read {{ ago(last.at) }}: <b>{{ say(last.headline || 'not judged') }}</b> ({{ last.method }})
    </p>
    <CautionStrip :cautions="choices.cautions.tension" state="Machine isolated." />
    <StageChoice v-if="tight" :stages="tight.stages" :model-value="gauge.stage" @update:model-value="desk.goTo" />
    <template v-if="tight">
      <HeldBy v-if="tight.runs !== 'chain'" :choices="choices.held_by" />
      <TensionScale v-if="narrow" />
      <p v-if="tight.why_not && !missing.length" class="small">{{ tight.why_not }}</p>
      <div v-if="tight.runs !== 'chain'" class="state" role="radiogroup" aria-label="State of the belts">
        <label v-for="s in ['run in', 'new']" :key="s" :class="{ on: gauge.belt_state === s }">
          <input v-model="gauge.belt_state" type="radio" :value="s" class="sr" name="belt-state" />
          {{ s === 'new' ? 'New belts' : 'Run-in belts' }}
        </label>
      </div>
      <p v-if="drive.hours.settling && tight.settles" class="small">
        This set was fitted {{ ago(drive.hours.set_at!) }} and has run about
        {{ Math.round(drive.hours.set_hours ?? 0) }} h: it is still settling, read it as new.
      </p>
      <MethodChoice />
      <ol class="do">
        <li v-for="s in tight.steps" :key="s">{{ say(s) }}</li>
      </ol>
      <p v-if="tight.stem" class="small soft">{{ tight.stem }}</p>
      <div v-if="figures.aim_low" class="row aim">
        <span class="pair">
          <FigureValue :figure="figures.aim_low" label="Should show" size="big" />
          <FigureValue :figure="figures.aim_high" label="to" size="big" />
        </span>
        <FigureValue
          v-if="['gauge', 'scale'].includes(tight.method)"
          :figure="figures.deflection"
          :label="`down by, on ${tight.pushes}`"
          size="big"
        />
      </div>

      <div class="gauge">
        <WordField
          v-if="tight.spans.length > 2"
          v-model="spanOf"
          name="span_of"
          label="Read on the run"
          :options="tight.spans.map((s, i) => ({ value: String(i + 1), label: s }))"
        />
        <MeasureField
          :model-value="at('span_measured', 'point_tape')"
          name="span_measured"
          field="point_tape"
          label="Span"
          :hint="figures.span ? `${inSystem(figures.span)} as surveyed` : 'tape it'"
          @update:model-value="gauge.quantities.span_measured = $event"
        />
        <template v-for="a in method?.asks ?? []" :key="a.key">
          <MeasureField
            v-if="a.key === 'deflection'"
            v-model="gauge.deflection!"
            name="deflection"
            label="If pushed otherwise"
          />
          <MeasureField
            v-else
            :model-value="desk.entry(home(a.kept), a.key, a.field)"
            :name="a.key"
            :field="a.field"
            :label="a.label"
            @update:model-value="home(a.kept)[a.key] = $event"
          />
        </template>
      </div>
      <div class="gauge">
        <MeasureField
          v-for="(_, i) in gauge.forces"
          :key="`${tight.number} ${tight.method} ${i}`"
          v-model="gauge.forces[i]!"
          :name="`force_${i + 1}`"
          :field="method?.field ?? 'force'"
          tight
          :label="each(i)"
          :hint="figures[`strand_${i + 1}`] ? `→ ${inSystem(figures[`strand_${i + 1}`]!)}` : ''"
        />
      </div>
      <FigureValue v-if="figures.stretch" :figure="figures.stretch" label="Stretch" doubt size="big" />
      <FigureValue
        v-if="figures.tension_aim || figures.tension_target"
        :figure="figures.tension_aim ?? figures.tension_target"
        label="Tension to aim for"
      />
      <div v-if="figures.strand_average" class="row means">
        <FigureValue
          :figure="figures.strand_average"
          :label="tight.values > 1 ? 'Average a strand' : 'Tension'"
          doubt
          size="big"
        />
        <FigureValue v-if="figures.strand_spread" :figure="figures.strand_spread" label="Spread" size="big" />
      </div>
      <VerdictSlip v-if="read" :topics="['tension', 'set', 'push']" />
      <div class="gauge how">
        <label v-if="(method?.tools.length ?? 0) > 1" class="tool">
          With
          <select v-model="gauge.tool" data-entry>
            <option v-for="t in choices.force_tools" :key="t.value" :value="t.value">{{ t.label }}</option>
          </select>
        </label>
        <label class="tool">
          Strand
          <select v-model="strand" data-entry>
            <option v-for="t in ['upper', 'lower', 'left', 'right']" :key="t" :value="t">{{ t }}</option>
          </select>
        </label>
        <label v-if="clutching" class="tool">
          Tensioner
          <select v-model="engaged" data-entry>
            <option value="">not said</option>
            <option value="yes">engaged</option>
            <option value="no">off</option>
          </select>
        </label>
        <label class="tool">
          Turned before
          <input v-model="turned" data-entry inputmode="numeric" maxlength="3" placeholder="turns by hand" />
          <span v-if="wrongTurns" class="ember small">{{ wrongTurns }}</span>
        </label>
      </div>
      <p v-if="clutching && read && engaged !== 'yes'" class="small ember">
        Read it with the tensioner engaged, as it runs: off, it says nothing of the tension at work.
      </p>

      <ReadingFoot v-if="read" v-model:hours="hourMeter" v-model:note="note" :problem="problem" />
      <el-checkbox v-if="read" v-model="wasSet">The tension was set: this is how it was left</el-checkbox>
      <SettlesNote v-if="!read" v-model="settles" :drive="drive" :headline="kept" />
      <p class="small">
        <router-link :to="`/drives/${drive.id}/speed`"
          >Does it slip? Read both shafts, loaded and unloaded, before and after.</router-link
        >
      </p>
      <StageLimits :choices="choices" />
      <details v-if="tight.pulls.length" class="fold">
        <summary>What it pulls its shafts with</summary>
        <table>
          <tbody>
            <tr v-for="p in tight.pulls" :key="p.wheel">
              <th scope="row">{{ say(p.wheel) }}</th>
              <td class="n">{{ inSystem(p.text) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-for="s in shared" :key="s.name" class="small">
          {{ s.name }}: <b>{{ s.pull ? inSystem(s.pull) : '–' }}</b><span class="soft"
            >, the belts' pulls added as arrows, at the least that carries the powers</span
          >
        </p>
        <p class="small soft">
          All {{ tight.runs === 'chain' ? 'strands' : 'belts' }} together at work, at {{ inSystem(tight.pulls_at) }} in
          {{ tight.runs === 'chain' ? 'the slack strand' : `one ${tight.one} at rest` }}; without the wheel's weight.
        </p>
      </details>
      <details v-if="rules.length" class="fold">
        <summary>By thumb: what the old rules mean here</summary>
        <p v-for="r in rules" :key="r.key" class="small">
          <b>{{ r.label }}</b>: {{ inSystem(r.text) }}<template v-if="r.said">, {{ say(r.said) }}</template>
        </p>
        <p class="small soft">How hard a thumb pushes nobody knows: nine times in ten it lies in that range.</p>
      </details>
      <details v-if="tight.span_notes.length" class="fold">
        <summary>Does it flop? What each run would ring at</summary>
        <p v-for="n in tight.span_notes" :key="n.between" class="small" :class="{ ember: n.source }">
          {{ say(n.between) }}{{ n.side ? `, ${n.side} at work` : '' }}: {{ n.note }} running<template v-if="n.source"
            >, near {{ say(n.source) }}: it may swing with it, and is not slack for that.
            <template v-if="clearOf(n).length">Clear of it at {{ clearOf(n).join(' or ') }}.</template>
            <template v-else>No tension that holds here moves it clear.</template></template
          >
        </p>
      </details>
    </template>
  </div>
  <KeepSurvey v-if="touched" :drive="drive" usual="what holds its tension" />
  <KeepReadingBar v-else :keeper="keeper" :read="read" idle="Take a reading first." label="Keep this reading" />
</template>

<style scoped>
.station {
  padding: 16px 18px 18px;
  display: grid;
  gap: 14px;
}
.state {
  display: grid;
  grid-template-columns: 1fr 1fr;
  border: 1px solid var(--ink);
  border-radius: 3px;
  overflow: hidden;
}
.state label {
  text-align: center;
  padding: 10px;
  cursor: pointer;
  font-stretch: 78%;
  font-weight: 620;
  min-height: 44px;
}
.state label.on {
  background: var(--ink);
  color: var(--sheet);
}
.state label:focus-within {
  outline: 2px solid var(--focus);
  outline-offset: -3px;
}
.do {
  margin: 0;
  padding-left: 20px;
  display: grid;
  gap: 6px;
  font-size: 14.5px;
}
.aim,
.pair {
  gap: 22px;
}
.pair {
  display: inline-flex;
}
.gauge {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 14px;
  align-items: start;
}
.tool {
  display: grid;
  gap: 3px;
  font-size: 13.5px;
  font-weight: 560;
  align-content: start;
}
.tool select,
.tool input {
  min-height: 46px;
  width: 100%;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  padding: 0 8px;
}
.means {
  gap: 26px;
  border-top: 1px solid var(--hair);
  padding-top: 10px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
}
th,
td {
  text-align: left;
  font-weight: 500;
  padding: 7px 4px;
  border-bottom: 1px solid var(--hair-2);
}
.n {
  text-align: right;
}
.fold {
  border-top: 1px solid var(--hair);
}
.fold summary {
  min-height: 46px;
  display: flex;
  align-items: center;
  cursor: pointer;
  font-weight: 560;
}
</style>
