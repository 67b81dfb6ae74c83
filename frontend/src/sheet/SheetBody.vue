<script setup lang="ts">
import { computed, type FunctionalComponent, provide, ref, toRef, watch } from 'vue'
import { useRouter } from 'vue-router'

import type { Choices, DriveOut, Sheet } from '../api/client'
import { faceOf, STATIONS } from '../stations/registry'
import type { SheetContext, StationFace } from '../stations/station'
import { useKeys } from '../useKeys'
import DetailsSlip from './DetailsSlip.vue'
import DoneSlip from '../open/DoneSlip.vue'
import OpenBar from '../open/OpenBar.vue'
import { doneKey } from '../open/useOpen'
import DriveView from './DriveView.vue'
import KeyStrip from './KeyStrip.vue'
import { layoutKey, useLayout } from './useLayout'
import { answersKey, focusKey, moreFiguresKey, sheetKey, useSheet, workingKey } from './useSheet'
import WorkingSlip from './WorkingSlip.vue'

const { drive, choices, station, ask } = defineProps<{
  drive: DriveOut
  choices: Choices
  station: StationFace
  ask: string
}>()
const router = useRouter()

const state = useSheet(
  toRef(() => drive),
  toRef(() => choices),
)
const focus = ref('')
const panel = ref<HTMLElement>()
/** A drive on many wheels shows its layout wherever there is no drive of two wheels to draw. */
const layoutShown = computed(
  () =>
    (station.key === 'survey' && ask === 'wheels') ||
    (!state.lastDrawn.value && state.form.value.survey.layout.wheels.length > 2),
)
const layout = useLayout(state, layoutShown)
provide(layoutKey, layout)
const context: SheetContext = {
  drive: () => drive,
  choices: () => choices,
  state,
  asked: (key) => (station.key === key ? ask : null),
  goTo: (path) => void router.push(path),
  replaceBy: (path) => void router.replace(path),
}
const desks = STATIONS.map((s) => s.setup?.(context))
const tried = computed(() => desks.map((d) => d?.tried?.value).find(Boolean) ?? null)
watch([() => station, () => ask], () => {
  focus.value = ''
  panel.value?.scrollTo({ top: 0 })
})
const working = ref<string | null>(null)
const details = ref(false)
const doing = ref<string | null>(null)
provide(doneKey, (first = '') => (doing.value = first))
provide(sheetKey, state)
provide(answersKey, {
  note: (name) => state.sheet.value?.notes[name],
  problem: (name) => state.problems.value.get(name),
})
provide(focusKey, focus)
provide(workingKey, (key) => (working.value = key))

/** A kind of drive with a survey of its own; the others are asked question by question beside the drawing. */
const face = computed(() => faceOf(drive.kind))
const own = computed(() => (station.key === 'survey' && !layoutShown.value ? face.value.survey : null))
const bare = computed(() => station.bare?.(drive) ?? false)
const OnlyTheDrive: FunctionalComponent = (_, { slots }) => slots.default?.()

const moreFigures = ref<Sheet['figures']>({})
provide(moreFiguresKey, moreFigures)
const figures = computed(() => state.sheet.value?.figures ?? {})
/** Of what is on the sheet now; with nothing read now, of what its last readings said, as the floor has it. */
function sign({ topics, left }: (typeof STATIONS)[number]): { mark: string; text: string } {
  const tones = state.sheet.value?.verdicts.filter((v) => topics.includes(v.topic)).map((v) => v.tone) ?? []
  const wrong = tones.length ? tones : (left?.(drive) ?? [])
  if (wrong.includes('stop') || wrong.includes('watch')) return { mark: '▲', text: 'wants attention' }
  if (tones.length && tones.every((t) => t === 'good')) return { mark: '✓', text: 'in order' }
  return { mark: '', text: '' }
}
// A digit goes to the station that shows it.
useKeys(
  Object.fromEntries(
    STATIONS.map((s, i) => [
      String(i + 1),
      () => {
        void router.push(`/drives/${drive.id}/${s.key}`)
      },
    ]),
  ),
)
useKeys({ '/': () => void router.push('/floor?find') })
</script>

<template>
  <div class="sheet" :data-station="station.key">
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
        <span v-if="drive.retired_at" class="due">archived</span>
      </div>
      <OpenBar :drive="drive" />
    </header>

    <nav class="rule no-print" aria-label="Stations">
      <router-link
        v-for="(s, i) in STATIONS"
        :key="s.key"
        :to="`/drives/${drive.id}/${s.key}`"
        :class="{ here: s === station }"
        :aria-current="s === station ? 'step' : undefined"
      >
        <span class="tick" aria-hidden="true">{{ i + 1 }}</span>
        {{ s.title }}
        <span v-if="sign(s).mark" :class="sign(s).mark === '✓' ? 'ok' : 'ember'" :title="sign(s).text">
          <span aria-hidden="true">{{ sign(s).mark }}</span>
          <span class="sr">{{ sign(s).text }}</span>
        </span>
      </router-link>
    </nav>

    <component :is="own" v-if="own" :drive="drive" :choices="choices" />
    <div v-else class="work" :class="{ bare }">
      <section v-if="!bare" class="board" :class="{ tall: station.tall?.(ask) }" aria-label="Drawing">
        <component :is="station.board ?? OnlyTheDrive" :drive="drive" :choices="choices" :ask="ask">
          <DriveView :drive="drive" :station="station.key" :ask="ask" :tried="tried" />
        </component>
        <p v-if="state.unreachable.value" class="offline" role="status">
          No answer from the server: the numbers shown are the last ones.
          <button class="bare" type="button" @click="state.ask()"><u>Ask again</u></button>
        </p>
        <KeyStrip v-if="station.strip(ask)" :figures="tried?.figures ?? figures" :stale="state.stale.value" />
      </section>
      <section ref="panel" class="panel" data-panel :aria-label="station.title">
        <component
          :is="station.panel"
          :drive="drive"
          :choices="choices"
          :ask="ask"
          :layout="layout.answer.value"
          :record-only="face.survey !== null"
        />
      </section>
    </div>
    <DoneSlip
      v-if="doing !== null"
      :model-value="true"
      :drive="drive"
      :first="doing"
      @update:model-value="doing = null"
    />
    <DetailsSlip v-if="details" v-model="details" :drive="drive" />
    <WorkingSlip v-model="working" :figures="{ ...figures, ...moreFigures }" />
  </div>
</template>

<style src="./work.css" scoped></style>
<style src="./board.css" scoped></style>
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
.bare .panel {
  border-left: 0;
  background: none;
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
    flex-wrap: wrap;
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
  .board.tall {
    position: static;
    display: block;
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
