<script setup lang="ts">
import { computed, provide, ref } from 'vue'

import { useChoices } from '../../api/queries'
import { api, unwrap } from '../../api/client'
import { useQuery } from '@tanstack/vue-query'
import { inSystem, say } from '../../settings'
import CautionStrip from '../../sheet/CautionStrip.vue'
import MeasureField from '../../sheet/MeasureField.vue'
import { focusKey } from '../../sheet/useSheet'
import VerdictNotes from '../../sheet/VerdictNotes.vue'
import WordField from '../../stations/survey/WordField.vue'
import DogFields from './DogFields.vue'
import LinearFields from './LinearFields.vue'
import PaperTemplate from './PaperTemplate.vue'
import ToothDrawing from './ToothDrawing.vue'
import type { ToothedForm } from '../../sheet/form'
import { useToothed } from './useToothed'

/** Which toothed belt or chain is this, and what its two wheels and its length come to. */
const form = defineModel<ToothedForm>({ required: true })
const { kind } = defineProps<{ kind: { key: string; runs: string } }>()
const family = kind.key
const { found, drive, clear } = useToothed(family, form)
const { data: choices } = useChoices()
const { data: lists } = useQuery({
  queryKey: ['toothed lists'],
  queryFn: () => unwrap(api.GET('/api/calc/toothed-lists')),
  staleTime: Infinity,
})
provide(focusKey, ref(''))
const q = computed(() => form.value.quantities)
const w = computed(() => form.value.words)
const d = computed(() => form.value.drive)
const chain = kind.runs === 'chain'
const words = (said: string[]) => [
  { value: '', label: 'not looked at yet' },
  ...said.map((s) => ({ value: s, label: s })),
]
const names = computed(() => (lists.value?.names[family] ?? []).map((n) => ({ value: n, label: n })))
const TOOLS = [
  { value: 'caliper', label: 'callipers' },
  { value: 'rule', label: 'a steel rule' },
]
const percent = (share: number) => (share > 0.99 ? '> 99 %' : `${Math.round(share * 100)} %`)
function jump(): void {
  const target = document.getElementById(`f-${found.value?.next?.field ?? ''}`)
  target?.focus()
  target?.scrollIntoView({ block: 'center' })
}
function take(name: string): void {
  form.value.drive.name = name
}
</script>

<template>
  <div class="work">
    <section class="board" aria-label="Drawing">
      <ToothDrawing :found="found?.anything ? found : null" />
      <div class="under no-print">
        <table v-if="found?.anything && found.found.length">
          <caption class="sr">
            Candidates by likelihood
          </caption>
          <tbody>
            <tr v-for="c in found.found" :key="c.name">
              <th scope="row">{{ c.name }}</th>
              <td class="soft">{{ c.what }}</td>
              <td class="bar">
                <i aria-hidden="true" :style="{ width: `${Math.max(1, c.share * 100)}%` }" />{{ percent(c.share) }}
              </td>
              <td
                v-for="s in c.sizes.slice(0, chain ? 4 : 3)"
                :key="s.key"
                class="size"
                :class="{ ember: s.off !== null && Math.abs(s.off) > 3 }"
              >
                <span class="small soft">{{ s.label }}</span>
                {{ inSystem(s.expected) }}
              </td>
              <td>
                <button type="button" class="bare" @click="take(c.name)"><u>take it</u></button>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-else class="soft">The candidates stand here, likeliest first.</p>
      </div>
    </section>
    <section class="panel" data-panel :aria-label="chain ? 'Which chain?' : 'Which toothed belt?'">
      <div class="station">
        <div class="slip" aria-live="polite">
          <VerdictNotes v-if="found" :verdicts="found.verdicts.slice(0, 1)" />
          <VerdictNotes v-if="found" :verdicts="found.verdicts.slice(1)" fold />
          <p v-if="found?.named" class="soft">
            {{ found.named.designation }}: {{ found.named.teeth }} teeth,
            {{ inSystem(found.named.length) }} long<template v-if="found.named.width"
              >, {{ inSystem(found.named.width) }} wide</template
            >.
          </p>
          <p v-if="(found?.strands ?? 1) > 1" class="soft">{{ found!.strands }} strands side by side.</p>
          <button v-if="found?.next" type="button" class="next" @click="jump">
            <b>Next: {{ say(found.next.how) }}</b>
            <span v-for="line in found.next.says" :key="line">{{ line }}</span>
          </button>
        </div>
        <CautionStrip v-if="choices" :cautions="choices.cautions.survey" state="Machine isolated." />
        <fieldset>
          <legend>{{ chain ? 'The chain, pulled straight' : 'The belt in hand' }}</legend>
          <MeasureField v-model="q.pitch_span!" name="pitch_span" label="1 Over many" hint="edge to same edge" />
          <WordField
            v-model="w.pitch_count"
            name="pitch_count"
            :label="chain ? '…links between' : '…teeth between'"
            placeholder="20"
          />
          <template v-if="chain">
            <MeasureField v-model="q.roller_diameter!" name="roller_diameter" label="2 Roller" hint="across" />
            <MeasureField v-model="q.inner_width!" name="inner_width" label="3 Gap inside" hint="inner plates" />
            <WordField
              v-model="w.body"
              name="body"
              label="On the tooth runs"
              :options="words(['roller', 'bushing', 'forged'])"
            />
            <WordField v-model="w.plates" name="plates" label="Plates" :options="words(['figure-8', 'straight'])" />
            <MeasureField v-model="q.plate_height!" name="plate_height" label="Plate height" />
            <MeasureField v-model="q.plate_thickness!" name="plate_thickness" label="Plate thickness" />
            <MeasureField v-model="q.pin_diameter!" name="pin_diameter" label="Pin" />
          </template>
          <template v-else>
            <WordField v-model="w.shape" name="shape" label="2 Teeth" :options="words(['straight', 'round'])" />
            <MeasureField v-model="q.belt_thickness!" name="belt_thickness" label="3 Thickness" hint="back to tip" />
            <MeasureField v-model="q.tooth_height!" name="tooth_height" label="Tooth height" />
            <MeasureField v-model="q.belt_width!" name="belt_width" label="Width" />
            <WordField
              v-model="w.material"
              name="material"
              label="Made of"
              :options="words(['rubber', 'polyurethane'])"
            />
          </template>
          <WordField
            v-model="w.label"
            name="label"
            :label="chain ? 'Mark on a plate' : 'Name, or a part of it'"
            :placeholder="chain ? '08B-1, 60-2' : '270L100, 8M-1200-30'"
          />
          <WordField v-model="w.tool" name="tool" label="Sizes taken with" :options="TOOLS" />
        </fieldset>
        <fieldset>
          <legend>{{ chain ? 'Or a sprocket it runs on' : say('Or a pulley it runs on') }}</legend>
          <WordField v-model="w.wheel_teeth" name="wheel_teeth" label="Its teeth" placeholder="count them" />
          <MeasureField
            v-if="chain"
            v-model="q.wheel_caliper!"
            name="wheel_caliper"
            label="Bottom to bottom"
            hint="callipers"
          />
          <MeasureField v-else v-model="q.wheel_outside!" name="wheel_outside" label="Over its teeth" />
        </fieldset>
        <p class="row">
          <PaperTemplate v-if="found?.anything && found.found.length" :found="found" />
          <el-button class="no-print" @click="clear">Start over</el-button>
        </p>
        <fieldset>
          <legend>{{ chain ? 'Sprockets and length' : say('Pulleys and length') }}</legend>
          <WordField
            v-if="names.length"
            v-model="d.name"
            name="name"
            :label="chain ? 'Chain' : 'Profile'"
            :options="names"
            wide
          />
          <WordField v-model="d.teeth_1" name="teeth_1" label="Driver, teeth" placeholder="count them" />
          <WordField v-model="d.teeth_2" name="teeth_2" label="Driven, teeth" placeholder="count them" />
          <MeasureField v-model="d.centre_distance" name="centre_distance" label="Centres" hint="shaft to shaft" />
          <WordField v-if="chain" v-model="d.strands" name="strands" label="Strands side by side" placeholder="1" />
          <WordField v-model="d.count" name="count" :label="chain ? 'or links on it' : 'or teeth on the belt'" />
        </fieldset>
        <VerdictNotes v-if="drive?.wheels.length" :verdicts="drive.verdicts" />
        <table v-if="drive?.wheels.length" class="sizes">
          <caption class="sr">
            {{
              chain ? 'Sprockets' : 'Pulleys'
            }}
          </caption>
          <thead>
            <tr>
              <th scope="col">teeth</th>
              <th scope="col">pitch dia.</th>
              <th scope="col">over tips</th>
              <th v-if="chain" scope="col">callipers</th>
              <th scope="col">wrap</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(x, i) in drive.wheels" :key="i">
              <th scope="row">{{ x.teeth }}</th>
              <td>{{ inSystem(x.pitch_diameter) }}</td>
              <td>{{ inSystem(x.outside_diameter) }}</td>
              <td v-if="chain">{{ x.caliper ? inSystem(x.caliper) : '' }}</td>
              <td>{{ x.wrap }}</td>
            </tr>
          </tbody>
        </table>
        <table v-if="(drive?.fittings.length ?? 0) > 1" class="sizes">
          <caption class="sr">
            Lengths that fit
          </caption>
          <tbody>
            <tr v-for="x in drive!.fittings" :key="x.count">
              <th scope="row">{{ x.name }}</th>
              <td>centres {{ inSystem(x.centre) }}</td>
              <td class="soft">{{ x.plain ? '' : chain ? 'offset link' : 'not on the list' }}</td>
            </tr>
          </tbody>
        </table>
        <template v-if="chain">
          <el-checkbox v-model="form.dogs.fitted" class="no-print"
            >it carries dogs that push a conveyor chain</el-checkbox
          >
          <DogFields v-if="form.dogs.fitted" v-model="form.dogs" :found="found?.dogs ?? null" :names="names" />
        </template>
        <template v-else>
          <el-checkbox v-model="form.linear.fitted" class="no-print">open-ended, clamped to a carriage</el-checkbox>
          <LinearFields v-if="form.linear.fitted" v-model="form.linear" :found="found?.linear ?? null" />
        </template>
      </div>
      <slot name="keep" />
    </section>
  </div>
</template>

<style src="../../stations/survey/ask/ask.css" scoped></style>
<style src="../../sheet/work.css" scoped></style>
<style scoped>
.under {
  border-top: 1px solid var(--hair);
  padding: 8px 18px 12px;
  overflow: auto;
  max-height: 300px;
}
.slip {
  display: grid;
  gap: 8px;
}
.slip p {
  margin: 0;
}
.next {
  border: 1px solid var(--ember);
  background: var(--ember-tint);
  border-radius: 3px;
  padding: 8px 12px;
  text-align: left;
  display: grid;
  gap: 2px;
  font: inherit;
  color: var(--ink);
  cursor: pointer;
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 14.5px;
}
th,
td {
  text-align: left;
  padding: 6px 10px 6px 0;
  border-bottom: 1px solid var(--hair-2);
  white-space: nowrap;
}
tr th[scope='row'] {
  font-weight: 640;
  font-size: 16px;
}
.bar {
  min-width: 84px;
}
.bar i {
  display: block;
  height: 4px;
  background: var(--ink-2);
}
.size .small {
  display: block;
}
.size.ember {
  color: var(--ember);
}
@media (max-width: 760px) {
  .under {
    max-height: 116px;
  }
}
@media print {
  .work,
  .panel {
    display: block;
    border: 0;
  }
  .board,
  fieldset,
  .slip,
  .sizes,
  .station > :not(.row) {
    display: none;
  }
}
</style>
