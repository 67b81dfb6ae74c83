<script setup lang="ts">
import { computed, inject } from 'vue'

import type { Choices } from '../../api/client'
import CautionStrip from '../../sheet/CautionStrip.vue'
import FigureValue from '../../sheet/FigureValue.vue'
import { sheetKey } from '../../sheet/useSheet'
import VerdictNotes from '../../sheet/VerdictNotes.vue'

/** The tension of a kind of drive that no method here sets yet: what is known of it, and what to go by. */
const { choices } = defineProps<{ choices: Choices }>()
const state = inject(sheetKey)!
const sheet = computed(() => state.sheet.value)
const figures = computed(() => sheet.value?.figures ?? {})
const said = computed(() => sheet.value?.verdicts.filter((v) => ['sag', 'take-up'].includes(v.topic)) ?? [])
</script>

<template>
  <div class="station">
    <p class="note">{{ sheet?.tension_note }}</p>
    <CautionStrip :cautions="choices.cautions.tension" state="Machine isolated." />
    <VerdictNotes :verdicts="said" />
    <section v-if="figures.tight_strand">
      <h3>What its strands carry at work</h3>
      <div class="grid">
        <FigureValue :figure="figures.effective_pull" label="Effective pull" />
        <FigureValue :figure="figures.tight_strand" label="Tight strand" />
        <FigureValue :figure="figures.slack_strand" label="Slack strand" />
        <FigureValue :figure="figures.shaft_pull" label="Pull on each shaft" />
      </div>
    </section>
    <p v-else class="soft">Once both wheels, the power and the kind of machine are surveyed, its strands stand here.</p>
  </div>
</template>

<style scoped>
.station {
  display: grid;
  gap: 14px;
  padding: 16px 18px 24px;
}
.note {
  margin: 0;
  font-weight: 560;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
