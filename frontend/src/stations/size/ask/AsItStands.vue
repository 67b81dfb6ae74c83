<script setup lang="ts">
import { computed, inject } from 'vue'

import type { Choices, DriveOut } from '../../../api/client'
import CautionStrip from '../../../sheet/CautionStrip.vue'
import FigureValue from '../../../sheet/FigureValue.vue'
import ShortSets from '../../../sheet/ShortSets.vue'
import { MEANT, sheetKey } from '../../../sheet/useSheet'
import ProposalNote from '../../../sheet/ProposalNote.vue'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import { say } from '../../../settings'

/** What the fitted drive carries, and the pulls that the drawing's arrows show. */
const { drive, choices } = defineProps<{ drive: DriveOut; choices: Choices }>()
const state = inject(sheetKey)!
const figures = computed(() => state.sheet.value?.figures ?? {})
const said = computed(() => state.sheet.value?.verdicts.filter((v) => ['rating', 'oil'].includes(v.topic)) ?? [])
const flags = computed(
  () =>
    state.sheet.value?.flags.filter((f) =>
      [...MEANT, 'small-sheave', 'too-few-belts', 'estimated-rating', 'underrated', 'rim-speed', 'belt-speed'].includes(
        f.code,
      ),
    ) ?? [],
)
const POWER = [
  'driver_power',
  'service_factor',
  'design_power',
  'rated_power',
  'arc_factor',
  'length_factor',
  'power_per_belt',
  'plates_power',
  'rollers_power',
  'capacity',
  'belts_needed',
]
const PULLS = [
  'effective_pull',
  'tight_strand',
  'slack_strand',
  'centrifugal_pull',
  'shaft_pull',
  'standing_pull',
  'starting_strand',
  'shock_strand',
]
const missing = computed(() => (state.sheet.value?.wanted ?? []).flatMap((w) => choices.wanted[w]?.says ?? []))
const groups = computed(() =>
  [
    { title: 'What it carries', keys: POWER },
    { title: 'What it pulls', keys: PULLS },
  ].map((g) => ({ ...g, found: g.keys.filter((k) => figures.value[k]) })),
)
</script>

<template>
  <div class="station">
    <div aria-live="polite" class="stack">
      <VerdictNotes v-if="said.length" :verdicts="said" />
      <p v-for="f in flags" :key="f.code" class="ember small">▲ {{ say(f.sentence) }}</p>
      <ProposalNote :drive="drive" />
      <p v-if="missing.length" class="soft">
        Not known yet: {{ say(missing.join(', ')) }}.
        <router-link :to="`/drives/${drive.id}/survey`">Survey</router-link> asks for them.
      </p>
    </div>
    <section v-for="g in groups" :key="g.title">
      <template v-if="g.found.length">
        <h3>{{ g.title }}</h3>
        <div class="numbers">
          <FigureValue v-for="k in g.found" :key="k" :figure="figures[k]!" :label="say(figures[k]!.label)" />
        </div>
      </template>
    </section>
    <p v-if="state.sheet.value?.short_not" class="ember small">{{ say(state.sheet.value.short_not) }}</p>
    <ShortSets :short="state.sheet.value?.short ?? []" />
    <CautionStrip :cautions="choices.cautions.survey" state="Before wheels or belts come off: machine isolated." />
    <p class="small soft">{{ choices.cautions.deference }}</p>
  </div>
</template>

<style src="../../survey/ask/ask.css" scoped></style>
<style scoped>
.stack {
  display: grid;
  gap: 8px;
}
.numbers {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 14px;
  margin: 6px 0 0;
}
</style>
