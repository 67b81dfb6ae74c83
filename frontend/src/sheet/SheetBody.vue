<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, provide, ref, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'

import type { Choices, DriveOut, Sheet } from '../api/client'
import { type Station, STATIONS } from '../router'
import { useFound } from '../api/queries'
import LogStation from '../stations/log/LogStation.vue'
import CandidateLadder from '../stations/survey/ask/CandidateLadder.vue'
import type { Ask, SizeAsk, SpeedAsk } from '../stations/asks'
import SizeBoard from '../stations/size/SizeBoard.vue'
import SizePanel from '../stations/size/SizePanel.vue'
import { useSizeAsk } from '../stations/size/useSizeAsk'
import { sizeDeskKey, useSizeDesk } from '../stations/size/useSizeDesk'
import SpeedPanel from '../stations/speed/SpeedPanel.vue'
import { speedDeskKey, useSpeedDesk } from '../stations/speed/useSpeedDesk'
import SurveyPanel from '../stations/survey/SurveyPanel.vue'
import { findKey, useFind } from '../stations/survey/useFind'
import { faceOf } from '../drives/registry'
import TensionStation from '../stations/tension/TensionStation.vue'
import TensionSaid from '../stations/tension/TensionSaid.vue'
import TrainPanel from '../stations/train/TrainPanel.vue'
import { useKeys } from '../useKeys'
import { dueText } from '../words'
import DetailsSlip from './DetailsSlip.vue'
import DriveDrawing from './DriveDrawing.vue'
import GrooveDrawing from './GrooveDrawing.vue'
import KeyStrip from './KeyStrip.vue'
import ConesDrawing from './ConesDrawing.vue'
import FanChart from './FanChart.vue'
import WheelSection from './WheelSection.vue'
import { looseKeepers } from './layoutEdit'
import LayoutDrawing from './LayoutDrawing.vue'
import LinkDrawing from './LinkDrawing.vue'
import { useLayout } from './useLayout'
import SectionDrawing from './SectionDrawing.vue'
import TeachDrawing, { type Step } from './TeachDrawing.vue'
import { answersKey, focusKey, moreFiguresKey, sheetKey, useSheet, workingKey } from './useSheet'
import WorkingSlip from './WorkingSlip.vue'

const { drive, choices, station, ask, speedAsk, sizeAsk } = defineProps<{
  drive: DriveOut
  choices: Choices
  station: Station
  ask: Ask
  speedAsk: SpeedAsk
  sizeAsk: SizeAsk
}>()
const router = useRouter()

const state = useSheet(
  toRef(() => drive),
  toRef(() => choices),
)
const { data: found } = useFound(() => drive.id)
const find = useFind(
  drive.id,
  toRef(() => choices),
  computed(() => found.value?.slip?.find),
)
provide(findKey, find)
const focus = ref('')
const panel = ref<HTMLElement>()
const narrow = useMediaQuery('(max-width: 760px)')
function choose(designation: string): void {
  find.chosen.value = designation
  void router.push(`/drives/${drive.id}/survey/counter`)
}
/** The tape's order at Survey; a belt's own name gives the centres as well as the tape does. */
const steps = computed<Step[]>(() => {
  const { quantities: q, choices: c } = state.sheaves.value
  const text = (key: keyof typeof q) => Boolean(q[key].text)
  const tape = [
    { key: 'section', label: 'belt section', done: Boolean(c.section) },
    { key: 'driver_diameter', label: 'driver sheave, across the outside', done: text('driver_diameter') },
    { key: 'driven_diameter', label: 'driven sheave, across the outside', done: text('driven_diameter') },
    { key: 'centre_distance', label: 'centres, shaft to shaft', done: text('centre_distance') },
  ]
  const slide = [
    { key: 'travel_in', label: 'how far the motor slides closer', done: Boolean(state.first.value.travel_in.text) },
    { key: 'travel_out', label: 'and away', done: Boolean(state.first.value.travel_out.text) },
  ]
  return ask === 'length' ? [...tape, ...slide] : tape
})
/** A drive on many wheels shows its layout wherever there is no drive of two wheels to draw. */
const wheelsAsked = computed(() => station === 'survey' && ask === 'wheels')
const layoutShown = computed(
  () =>
    wheelsAsked.value ||
    (!state.lastDrawn.value &&
      !['belt', 'groove', 'link'].includes(ask) &&
      state.form.value.survey.layout.wheels.length > 2),
)
const { answer: layout, held, wheelInHand, drop } = useLayout(state, layoutShown)
const path = computed(() => state.form.value.survey.layout)
const tapeInHand = computed<[number, number] | null>(() => {
  const tape = path.value.tapes?.[Number(/^tape_(\d+)$/.exec(focus.value)?.[1]) - 1]
  return tape ? [tape.a, tape.b] : null
})
const desk = useSpeedDesk(
  () => drive,
  state,
  () => (station === 'speed' ? speedAsk : null),
)
provide(speedDeskKey, desk)
const { cones, made, felt, tried, drawn } = desk
if (station === 'speed' && !desk.asks.value.includes(speedAsk)) void router.replace(`/drives/${drive.id}/speed`)
const sizeDesk = useSizeDesk(useSizeAsk(drive.id), state.form, () => (station === 'size' ? sizeAsk : null))
provide(sizeDeskKey, sizeDesk)
/** The candidates take the drive's place on the board while they are looked at. */
const sizing = computed(() => station === 'size' && ['choose', 'compare', 'why'].includes(sizeAsk))
watch([() => station, () => ask, () => speedAsk, () => sizeAsk], () => {
  desk.preview.value = null
  focus.value = ''
  panel.value?.scrollTo({ top: 0 })
})
const linkTabs = ref<string | null>(null)
const working = ref<string | null>(null)
const details = ref(false)
provide(sheetKey, state)
provide(answersKey, {
  note: (name) => state.sheet.value?.notes[name],
  problem: (name) => state.problems.value.get(name),
})
provide(focusKey, focus)
provide(workingKey, (key) => (working.value = key))

const TITLES: Record<Station, string> = {
  survey: 'Survey',
  speed: 'Speed',
  size: 'Size',
  tension: 'Tension',
  log: 'Log',
}
/** A kind of drive with a survey of its own; the others are asked question by question beside the drawing. */
const face = computed(() => faceOf(drive.kind))
const recordOnly = computed(() => face.value.survey !== null)

const moreFigures = ref<Sheet['figures']>({})
provide(moreFiguresKey, moreFigures)
const figures = computed(() => state.sheet.value?.figures ?? {})
const tone = (topics: string[]) =>
  state.sheet.value?.verdicts.filter((v) => topics.includes(v.topic)).map((v) => v.tone) ?? []
const TOPICS: Record<Station, string[]> = {
  survey: ['length'],
  speed: ['speed', 'design'],
  size: ['rating'],
  tension: ['tension', 'set'],
  log: [],
}
function sign(name: Station): { mark: string; text: string } {
  const tones = tone(TOPICS[name])
  if (tones.includes('stop') || tones.includes('watch')) return { mark: '▲', text: 'wants attention' }
  if (tones.length && tones.every((t) => t === 'good')) return { mark: '✓', text: 'in order' }
  return { mark: '', text: '' }
}
const go = (name: Station) => void router.push(`/drives/${drive.id}/${name}`)
// A digit goes to the station that shows it.
useKeys(
  Object.fromEntries(
    STATIONS.map((_, i) => [
      String(i + 1),
      () => {
        go(STATIONS[i]!)
      },
    ]),
  ),
)
useKeys({ '/': () => void router.push('/floor?find') })
const due = computed(() => drive.dues[0])
const drawnMachine = computed(() =>
  drive.machine_kind && drive.machine_kind.length <= 20 ? drive.machine_kind : 'driven',
)
</script>

<template>
  <div class="sheet" :data-station="station">
    <header>
      <router-link to="/floor" class="back no-print" aria-label="Back to the floor">‹</router-link>
      <div class="title">
        <h1>{{ drive.machine }}</h1>
        <span class="soft">
          {{ drive.name }}
          <template v-if="drive.place">· {{ drive.place }}</template>
        </span>
        <button
          type="button"
          class="bare edit no-print"
          title="Names, place, part number, note"
          @click="details = true"
        >
          <svg viewBox="0 0 20 20" aria-hidden="true"><path d="M4 16l1-4 8-8 3 3-8 8z M11 6l3 3" /></svg>
          <span class="sr">Machine and drive</span>
        </button>
        <span v-if="drive.retired_at" class="due">put away</span>
      </div>
      <span v-if="due" class="due" :class="{ late: due.days <= 0 }">{{ due.what }}: {{ dueText(due.days) }}</span>
    </header>

    <nav class="rule no-print" aria-label="Stations">
      <router-link
        v-for="(name, i) in STATIONS"
        :key="name"
        :to="`/drives/${drive.id}/${name}`"
        :class="{ here: name === station }"
        :aria-current="name === station ? 'step' : undefined"
      >
        <span class="tick" aria-hidden="true">{{ i + 1 }}</span>
        {{ TITLES[name] }}
        <span v-if="sign(name).mark" :class="sign(name).mark === '✓' ? 'ok' : 'ember'" :title="sign(name).text">
          <span aria-hidden="true">{{ sign(name).mark }}</span>
          <span class="sr">{{ sign(name).text }}</span>
        </span>
      </router-link>
    </nav>

    <component :is="face.survey" v-if="face.survey && station === 'survey'" :drive="drive" :choices="choices" />
    <div v-else class="work" :class="{ bare: recordOnly && station === 'log' }">
      <section v-if="!recordOnly || station !== 'log'" class="board" aria-label="Drawing">
        <SizeBoard v-if="sizing" :ask="sizeAsk" :standing="state.lastDrawn.value" />
        <ConesDrawing v-else-if="drawn === 'cones'" :found="cones" />
        <WheelSection v-else-if="drawn === 'wheel'" :found="made" />
        <FanChart v-else-if="drawn === 'fan' && felt" :felt="felt" />
        <LayoutDrawing
          v-else-if="layoutShown"
          :layout="layout"
          :focus="wheelInHand"
          :tape="wheelsAsked ? tapeInHand : null"
          :drag="wheelsAsked && path.placed_by === 'drag'"
          :loose="wheelsAsked ? looseKeepers(path) : []"
          :held="held"
          @hold="held = $event"
          @drop="drop"
          @pick="wheelInHand = $event"
        >
          <p class="teach">Begin with the wheel that drives: it draws itself here as you tape.</p>
        </LayoutDrawing>
        <SectionDrawing
          v-else-if="station === 'survey' && ask === 'belt'"
          :identified="find.identified.answer.value"
          :form="find.form.value"
          :focus="focus"
        />
        <GrooveDrawing
          v-else-if="station === 'survey' && ask === 'groove'"
          :checked="find.checked.answer.value"
          :belt="find.form.value.words.belt_section ?? ''"
          :made-for="find.form.value.words.made_for ?? ''"
          :typed="(key) => find.form.value.quantities[key as 'ride']?.text ?? ''"
        >
          <p class="teach">Say which belt and which groove: they are drawn here in section, to scale.</p>
        </GrooveDrawing>
        <LinkDrawing v-else-if="station === 'survey' && ask === 'link'" :tabs="linkTabs" />
        <DriveDrawing
          v-else
          :drawing="tried?.drawing ?? state.lastDrawn.value"
          :figures="tried?.figures ?? figures"
          :station="station === 'tension' && state.sheet.value?.tension_note ? 'size' : station"
          :focus="focus"
          :steps="station === 'survey' ? steps : []"
          :machine="drawnMachine"
          :fresh="state.form.value.gauge.belt_state === 'new'"
          :dimmed="state.stale.value && !state.sheet.value"
        >
          <TeachDrawing :steps="steps" />
        </DriveDrawing>
        <p v-if="tried" class="offline" role="status">Drawn with the chosen pair: not fitted, not kept.</p>
        <p v-if="state.unreachable.value" class="offline" role="status">
          No answer from the server: the numbers shown are the last ones.
          <button class="bare" type="button" @click="state.ask()"><u>Ask again</u></button>
        </p>
        <div v-if="station === 'survey' && ask === 'belt' && !narrow" class="under">
          <CandidateLadder
            v-if="find.identified.answer.value && find.anything.value"
            :identified="find.identified.answer.value"
            :chosen="find.chosen.value"
            @choose="choose"
          />
          <p v-else class="soft">
            Type any one measurement: the candidates stand here, likeliest first, and each further one tells them apart.
          </p>
        </div>
        <KeyStrip
          v-else-if="
            !sizing && !['belt', 'groove', 'wheels', 'link'].includes(ask) && drawn !== 'cones' && drawn !== 'wheel'
          "
          :figures="tried?.figures ?? figures"
          :stale="state.stale.value"
        />
      </section>
      <section ref="panel" class="panel" data-panel :aria-label="TITLES[station]">
        <SurveyPanel
          v-if="station === 'survey' && !recordOnly"
          v-model:tabs="linkTabs"
          :drive="drive"
          :choices="choices"
          :ask="ask"
          :layout="layout"
          @choose="choose"
          @wheel="wheelInHand = $event"
        />
        <SpeedPanel v-else-if="station === 'speed'" :drive="drive" :choices="choices" :ask="speedAsk" />
        <SizePanel v-else-if="station === 'size'" :drive="drive" :choices="choices" :ask="sizeAsk" :layout="layout" />
        <TrainPanel
          v-else-if="station === 'tension' && state.train.value"
          :drive="drive"
          :choices="choices"
          station="tension"
        />
        <TensionSaid v-else-if="station === 'tension' && state.sheet.value?.tension_note" :choices="choices" />
        <TensionStation v-else-if="station === 'tension'" :drive="drive" :choices="choices" />
        <LogStation v-else :drive="drive" :record-only="recordOnly" />
      </section>
    </div>
    <DetailsSlip v-if="details" v-model="details" :drive="drive" />
    <WorkingSlip v-model="working" :figures="{ ...figures, ...moreFigures }" />
  </div>
</template>

<style src="./work.css" scoped></style>
<style scoped>
.sheet {
  height: 100%;
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
}
header {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 10px 20px 8px 14px;
  min-width: 0;
}
.back {
  font-size: 30px;
  line-height: 1;
  width: 40px;
  height: 44px;
  display: grid;
  place-items: center;
  text-decoration: none;
  color: var(--ink-2);
}
.title {
  display: flex;
  align-items: baseline;
  gap: 14px;
  flex: 1;
  min-width: 0;
  flex-wrap: wrap;
}
.edit {
  align-self: center;
  width: 36px;
  height: 36px;
  display: grid;
  place-items: center;
}
.edit svg {
  width: 18px;
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.5;
  stroke-linejoin: round;
}
.due {
  border: 1px solid var(--hair);
  padding: 6px 12px;
  font-size: 14px;
  font-stretch: 80%;
  border-radius: 3px;
}
.due.late {
  border-color: var(--ember);
  color: var(--ember);
}
/* The stations stand along a steel rule. */
.rule {
  display: flex;
  gap: 0;
  padding: 0 14px;
  border-bottom: 1px solid var(--hair);
  background: repeating-linear-gradient(90deg, var(--hair) 0 1px, transparent 1px 8px) left bottom / 100% 5px no-repeat;
  overflow-x: auto;
}
.rule a {
  display: flex;
  align-items: center;
  gap: 7px;
  padding: 8px 22px 12px 12px;
  min-height: 46px;
  color: var(--ink-2);
  text-decoration: none;
  font-stretch: 76%;
  font-size: 17px;
  border-bottom: 3px solid transparent;
  border-left: 1px solid var(--hair);
  white-space: nowrap;
}
.rule a.here {
  color: var(--ink);
  font-weight: 640;
  border-bottom-color: var(--ember);
}
.tick {
  font-size: 12px;
  color: var(--ink-2);
}
.ok {
  color: var(--within);
  font-size: 14px;
}
.rule .ember {
  font-size: 11px;
}
.work.bare {
  grid-template-columns: minmax(0, 760px);
}
.board {
  position: relative;
}
.under {
  border-top: 1px solid var(--hair);
  padding: 10px 18px 14px;
  overflow-y: auto;
  max-height: min(46vh, 400px);
}
.bare .panel {
  border-left: 0;
  background: none;
}
.offline {
  position: absolute;
  left: 14px;
  top: 10px;
  background: var(--ember-tint);
  padding: 6px 10px;
  font-size: 14px;
}
@media (max-width: 980px) {
  .work {
    grid-template-columns: minmax(0, 1fr) 360px;
  }
}
@media (max-width: 760px) {
  .sheet {
    display: block;
    height: auto;
  }
  header {
    padding: 6px 12px 4px 4px;
    gap: 4px;
  }
  h1 {
    font-size: 20px;
  }
  .title {
    gap: 0 10px;
  }
  .due {
    font-size: 12.5px;
    padding: 3px 8px;
    max-width: 40%;
  }
  .rule {
    padding: 0;
  }
  .rule a {
    flex: 1;
    justify-content: center;
    padding: 6px 4px 10px;
    font-size: 15.5px;
    gap: 4px;
  }
  .board {
    position: sticky;
    grid-template-rows: 196px auto;
  }
}
@media print {
  .sheet,
  .work {
    display: block;
    height: auto;
  }
  .board {
    height: 420px;
  }
  .panel {
    border: 0;
    overflow: visible;
  }
}
</style>
