<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, provide, ref } from 'vue'
import { useRoute } from 'vue-router'

import { useChoices } from '../api/queries'
import ConesDrawing from '../sheet/ConesDrawing.vue'
import TrainDrawing from '../sheet/TrainDrawing.vue'
import { answersKey, focusKey } from '../sheet/useSheet'
import WheelSection from '../sheet/WheelSection.vue'
import AnyUnknown from '../stations/speed/ask/AnyUnknown.vue'
import MakeWheel from '../stations/speed/ask/MakeWheel.vue'
import ConesPanel from '../stations/speed/ConesPanel.vue'
import { useCones } from '../stations/speed/useCones'
import { useMade } from '../stations/speed/useMade'
import { blankCones, type Cones, useSpeedAsk } from '../stations/speed/useSpeedAsk'
import { blankTrain, useUnknown } from '../stations/speed/useUnknown'
import BenchNav from './BenchNav.vue'

/** Speeds without a drive: any unknown, step cones, a wheel to make. */
const route = useRoute()
const ask = computed(() => String(route.query.ask ?? 'unknown'))
const { data: choices } = useChoices()
const asked = useSpeedAsk('bench')
const train = useLocalStorage('tuyere-bench-train', blankTrain(), { mergeDefaults: true })
const cones = useLocalStorage<Cones>('tuyere-bench-cones', blankCones(), { mergeDefaults: true })
const here = (name: string) => computed(() => ask.value === name)
const unknown = useUnknown(train, here('unknown'))
const stepped = useCones(cones, here('cones'))
const madeForm = computed(() => asked.value.made)
const made = useMade(madeForm, here('make'))
provide(focusKey, ref(''))
provide(answersKey, { note: () => undefined, problem: () => undefined })
const TABS = [
  { ask: 'unknown', title: 'Any unknown' },
  { ask: 'cones', title: 'Step cones' },
  { ask: 'make', title: 'Make a wheel' },
]
</script>

<template>
  <div class="bench">
    <BenchNav here="speeds" />
    <div class="work">
      <section class="board" aria-label="Drawing">
        <TrainDrawing v-if="ask === 'unknown'" :found="unknown" />
        <ConesDrawing v-else-if="ask === 'cones'" :found="stepped" />
        <WheelSection v-else :found="made" />
      </section>
      <section class="panel" data-panel aria-label="Speeds">
        <nav class="tabs no-print" aria-label="Questions">
          <router-link
            v-for="t in TABS"
            :key="t.ask"
            :to="{ query: t.ask === 'unknown' ? {} : { ask: t.ask } }"
            :class="{ here: t.ask === ask }"
            :aria-current="t.ask === ask ? 'true' : undefined"
            >{{ t.title }}</router-link
          >
        </nav>
        <AnyUnknown v-if="ask === 'unknown'" v-model="train" :found="unknown" />
        <ConesPanel v-else-if="ask === 'cones' && choices" v-model="cones" :found="stepped" :choices="choices" />
        <MakeWheel v-else-if="choices" v-model="asked.made" :choices="choices" :found="made" />
      </section>
    </div>
  </div>
</template>

<style src="../sheet/work.css" scoped></style>
<style scoped>
.tabs {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  border-bottom: 1px solid var(--hair);
  background: var(--paper);
}
.tabs a {
  min-height: 44px;
  display: grid;
  place-items: center;
  text-decoration: none;
  color: var(--ink-2);
  font-stretch: 78%;
  font-size: 14.5px;
  border-left: 1px solid var(--hair-2);
}
.tabs a.here {
  color: var(--ink);
  font-weight: 640;
  background: var(--sheet);
  box-shadow: inset 0 3px 0 var(--ember);
}
</style>
