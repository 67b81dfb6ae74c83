<script setup lang="ts">
import { computed, inject, watchEffect } from 'vue'

import { useMayWrite } from '../../api/queries'
import { inSystem, say } from '../../settings'
import FigureValue from '../../sheet/FigureValue.vue'
import ShortSets from '../../sheet/ShortSets.vue'
import { moreFiguresKey } from '../../sheet/useSheet'
import VerdictNotes from '../../sheet/VerdictNotes.vue'
import FamilyMark from './FamilyMark.vue'
import type { CandidateFull } from './useSizeAsk'

/** One drive out of the list: what it does, what to fetch, what changes against the one that stands. */
const {
  candidate,
  beside,
  record = true,
} = defineProps<{ candidate: CandidateFull; beside: boolean; record?: boolean }>()
const emit = defineEmits<{ propose: [key: string]; write: [key: string]; beside: [key: string]; close: [] }>()
const mayWrite = useMayWrite()
const figures = computed(() => candidate.sheet?.figures ?? {})
const more = inject(moreFiguresKey, null)
watchEffect(() => {
  if (more) more.value = figures.value
})
const SHOWN = [
  'capacity',
  'design_power',
  'shaft_pull',
  'starting_strand',
  'shock_strand',
  'centre_distance',
  'belt_speed',
] as const
const worth = computed(
  () => candidate.sheet?.verdicts.filter((v) => ['rating', 'length', 'oil', 'design'].includes(v.topic)) ?? [],
)
const count = (n: number) => n.toLocaleString('en')
</script>

<template>
  <section class="slip" :aria-label="candidate.name">
    <h3>
      <FamilyMark :family="candidate.family" /> {{ say(candidate.name) }}
      <button type="button" class="bare close" aria-label="Close" @click="emit('close')">×</button>
    </h3>
    <VerdictNotes v-if="candidate.failures.length" :verdicts="candidate.failures" />
    <VerdictNotes v-if="worth.length" :verdicts="worth" fold />
    <p v-if="candidate.estimate" class="ember small">
      ▲ {{ say(candidate.estimate) }} Ask its maker before you rely on it.
    </p>
    <div class="numbers">
      <template v-for="key in SHOWN" :key="key">
        <FigureValue v-if="figures[key]" :figure="figures[key]" :label="say(figures[key]!.label)" />
      </template>
    </div>
    <div>
      <h4>
        To fetch<template v-if="candidate.price">, {{ candidate.price }} by your list</template>
      </h4>
      <ul class="parts">
        <li v-for="p in candidate.parts" :key="p.name">
          <b>{{ p.many }}</b> {{ say(p.name) }}
        </li>
      </ul>
    </div>
    <ShortSets :short="candidate.sheet?.short ?? []" />
    <div v-if="candidate.changes.length || candidate.savings">
      <h4>Against what stands now</h4>
      <p v-if="candidate.savings" class="small">
        <b
          >{{ candidate.savings.energy_kwh >= 0 ? 'Saves' : 'Costs' }} about
          {{ count(Math.abs(candidate.savings.energy_kwh)) }} kWh a year</b
        >
        ({{ inSystem(candidate.savings.power)
        }}<template v-if="candidate.savings.money !== null"
          >, {{ count(Math.abs(candidate.savings.money)) }} by your price</template
        >): {{ candidate.savings.before }} before, {{ candidate.savings.after }} after. {{ candidate.savings.source }};
        planning figures, medium at best.
      </p>
      <ul class="changes">
        <li v-for="c in candidate.changes" :key="c.headline">
          <b>{{ say(c.headline) }}.</b> <span class="soft">{{ say(c.detail) }}</span>
        </li>
      </ul>
    </div>
    <p class="row">
      <template v-if="record">
        <el-button v-if="mayWrite" type="primary" @click="emit('propose', candidate.key)">Propose it</el-button>
        <el-button @click="emit('write', candidate.key)">Write it into the survey</el-button>
      </template>
      <slot />
      <el-button @click="emit('beside', candidate.key)">{{ beside ? 'Off the side' : 'Side by side' }}</el-button>
    </p>
  </section>
</template>

<style scoped>
.slip {
  border: 1px solid var(--hair);
  border-left: 3px solid var(--ember);
  background: var(--paper);
  padding: 10px 12px 12px;
  display: grid;
  gap: 10px;
}
h3 {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 19px;
}
h4 {
  margin: 0 0 2px;
  font-size: 13px;
  font-weight: 560;
  color: var(--ink-2);
}
.close {
  margin-left: auto;
  width: 44px;
  height: 44px;
  font-size: 22px;
}
.numbers {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 14px;
  margin: 0;
}
.parts,
.changes {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 3px;
}
.changes li {
  font-size: 14px;
}
.row {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
.row :deep(.el-button) {
  margin: 0;
}
</style>
