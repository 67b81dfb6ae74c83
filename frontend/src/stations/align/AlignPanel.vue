<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, inject, onUnmounted, ref, watch } from 'vue'

import type { Choices, DriveOut } from '../../api/client'
import { useSession } from '../../api/queries'
import { say } from '../../settings'
import CautionStrip from '../../sheet/CautionStrip.vue'
import KeepReadingBar from '../../sheet/KeepReadingBar.vue'
import ReadingFoot from '../../sheet/ReadingFoot.vue'
import { useKeepAlignment } from '../../sheet/useKeepAlignment'
import { moreFiguresKey, sheetKey } from '../../sheet/useSheet'
import VerdictSlip from '../../sheet/VerdictSlip.vue'
import KeepSurvey from '../survey/KeepSurvey.vue'
import StageChoice from '../StageChoice.vue'
import WordField from '../survey/WordField.vue'
import AlignReading from './AlignReading.vue'
import AlignSteps from './AlignSteps.vue'
import BaseSlip from './BaseSlip.vue'
import ChecksFold from './ChecksFold.vue'
import ErrorRows from './ErrorRows.vue'
import FoundAndLeft from './FoundAndLeft.vue'
import RigBox from './RigBox.vue'
import TrueFold from './TrueFold.vue'
import { alignKey } from './useAlign'

/** How true: what moves and on what, quick looks, the readings, each error against what is allowed, and what to move. */
defineOptions({ inheritAttrs: false })
const { drive, choices, practice = false } = defineProps<{ drive: DriveOut; choices: Choices; practice?: boolean }>()
const state = inject(sheetKey)!
const desk = inject(alignKey)!
const { align, answer: a, read } = desk
const more = inject(moreFiguresKey)!
watch(a, (now) => (more.value = now?.figures ?? {}), { immediate: true })
onUnmounted(() => (more.value = {}))
const narrow = useMediaQuery('(max-width: 760px)')
const { data: session } = useSession()
const demo = computed(() => (session.value?.demo_people.length ?? 0) > 0)
const keeper = useKeepAlignment(() => drive, state, desk.clear)
const { standing, hourMeter, note, problem } = keeper
const next = computed(() => {
  if (state.waits.value) return state.waits.value
  if (!a.value) return 'Survey the wheels and where they stand first'
  if (a.value.wants[0]?.startsWith('what')) return `Say what the ${a.value.moving_name} stands on`
  if (a.value.wants.length) return 'Measure where its feet are'
  return 'Look at the quick checks, then read it'
})
const wheel = computed({
  get: () => String(a.value?.wheel ?? ''),
  set: (said: string) => {
    align.value.wheel = Number(said)
    desk.clear()
  },
})
const others = computed(() =>
  (a.value?.wheels ?? [])
    .map((label, i) => ({ value: String(i + 1), label }))
    .filter((w) => Number(w.value) !== a.value?.still),
)
/** What stands with the stage was changed: its bar stays until a reading is taken. */
const touched = ref(false)
watch(
  () => [state.dirty.value, read.value] as const,
  ([dirty, reading]) => (touched.value = !reading && (dirty || touched.value)),
  { immediate: true },
)
/** What sees an error that the readings so far do not. */
const another = computed(() => {
  const methods = a.value?.methods ?? []
  const used = align.value.readings.map((r) => r.method)
  const seen = new Set(methods.filter((m) => used.includes(m.key)).flatMap((m) => m.sees))
  const helps = methods.find((m) => m.sees.some((e) => !seen.has(e)))
  return helps?.key ?? used[0] ?? 'straightedge'
})
const STANDINGS = ['as found', 'between', 'as left'] as const
</script>

<template>
  <div class="station">
    <VerdictSlip :topics="['before', 'align']" :next="read ? '' : next" />
    <CautionStrip :cautions="choices.cautions.align" state="Machine isolated." />
    <StageChoice v-if="a" :stages="a.stages" :model-value="align.stage" @update:model-value="desk.goTo" />
    <template v-if="a">
      <WordField
        v-if="a.wheels.length > 2"
        v-model="wheel"
        name="wheel"
        :label="`Which wheel, against the ${a.still_name}`"
        :options="others"
      />
      <BaseSlip />
      <ChecksFold />
      <AlignReading v-for="(_, i) in align.readings" :key="i" :index="i" />
      <el-button v-if="align.readings.length < 8" @click="desk.add(another)">
        + Another reading, used together with {{ align.readings.length > 1 ? 'these' : 'this' }}
      </el-button>
      <ErrorRows v-if="read" />
      <ul v-if="read && a.seen.length" class="seen">
        <li v-for="s in a.seen" :key="s" class="small">{{ say(s) }}</li>
      </ul>
      <AlignSteps v-if="narrow" />
      <RigBox v-if="(practice || demo) && a.feet" :name="`${drive.id}-${a.number}-${a.wheel}`" :open="practice" />
      <template v-if="read && !practice">
        <div class="standing" role="radiogroup" aria-label="It stands">
          <label v-for="s in STANDINGS" :key="s" :class="{ on: standing === s }">
            <input v-model="standing" type="radio" :value="s" class="sr" name="standing" />
            {{ s }}
          </label>
        </div>
        <p v-if="standing === 'as left'" class="small soft">
          Kept as left, it is signed with your name: read at final tension, guard back on after.
        </p>
        <ReadingFoot v-model:hours="hourMeter" v-model:note="note" :problem="problem" />
      </template>
      <FoundAndLeft v-if="!practice" />
      <TrueFold />
    </template>
  </div>
  <template v-if="!practice">
    <KeepSurvey v-if="touched" :drive="drive" usual="what it stands on" />
    <KeepReadingBar v-else :keeper="keeper" :read="read" idle="Read it first." :label="`Keep ${standing}`" />
  </template>
</template>

<style scoped>
.station {
  padding: 16px 18px 18px;
  display: grid;
  gap: 14px;
}
.seen {
  margin: 0;
  padding-left: 18px;
  display: grid;
  gap: 4px;
}
.standing {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  border: 1px solid var(--ink);
  border-radius: 3px;
  overflow: hidden;
}
.standing label {
  text-align: center;
  padding: 10px;
  cursor: pointer;
  font-stretch: 78%;
  font-weight: 620;
  min-height: 44px;
}
.standing .on {
  background: var(--ink);
  color: var(--sheet);
}
.standing label:focus-within {
  outline: 2px solid var(--focus);
  outline-offset: -3px;
}
</style>
