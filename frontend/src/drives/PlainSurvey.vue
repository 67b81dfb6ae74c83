<script setup lang="ts">
import { computed, inject } from 'vue'

import type { Choices, DriveOut, Entry } from '../api/client'
import DriveDrawing from '../sheet/DriveDrawing.vue'
import MeasureField from '../sheet/MeasureField.vue'
import { MEANT, sheetKey } from '../sheet/useSheet'
import VerdictSlip from '../sheet/VerdictSlip.vue'
import DriverFields from '../stations/survey/DriverFields.vue'
import FamilySlip from '../stations/survey/FamilySlip.vue'
import KeepSurvey from '../stations/survey/KeepSurvey.vue'
import WordField from '../stations/survey/WordField.vue'

/** Survey of a kind of drive that has no form of its own here: every field that it keeps, by name. */
const { drive } = defineProps<{ drive: DriveOut; choices: Choices }>()
const state = inject(sheetKey)!
interface Plain {
  quantities: Record<string, Entry>
  words: Record<string, string>
}
const fitted = computed(() => state.first.value.fitted as unknown as Plain)
const said = (key: string) => key.replaceAll('_', ' ')
</script>

<template>
  <div class="work">
    <section class="board" aria-label="Drawing">
      <DriveDrawing
        :drawing="state.lastDrawn.value"
        :figures="state.sheet.value?.figures ?? {}"
        station="survey"
        focus=""
        :steps="[]"
        machine="driven"
        :pushed="false"
        :dimmed="false"
      />
    </section>
    <section class="panel" data-panel aria-label="Survey">
      <div class="station">
        <VerdictSlip :topics="['rating', 'length']" :flags="MEANT" next="" />
        <fieldset>
          <legend>The {{ drive.kind.label }}</legend>
          <MeasureField
            v-for="(_, key) in fitted.quantities"
            :key="key"
            v-model="fitted.quantities[key]!"
            :name="String(key)"
            :label="said(String(key))"
          />
          <WordField
            v-for="(_, key) in fitted.words"
            :key="key"
            v-model="fitted.words[key]!"
            :name="String(key)"
            :label="said(String(key))"
          />
        </fieldset>
      </div>
      <DriverFields />
      <FamilySlip :drive="drive" />
      <KeepSurvey :drive="drive" :usual="drive.configuration_id ? 'surveyed again' : 'first survey'" />
    </section>
  </div>
</template>

<style src="../stations/survey/ask/ask.css" scoped></style>
<style src="../sheet/work.css" scoped></style>
