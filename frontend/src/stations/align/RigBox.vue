<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, inject, ref } from 'vue'

import { api, unwrap } from '../../api/client'
import type { components } from '../../api/schema'
import { say, settings } from '../../settings'
import { blank } from '../../sheet/form'
import MeasureField from '../../sheet/MeasureField.vue'
import { useAnswer } from '../../sheet/useAnswer'
import { useAnswers } from '../../sheet/useAnswers'
import { alignKey } from './useAlign'

/** A machine to practise on: simulated tools read its hidden pose, and moves are made at its feet. Kept on this device. */
type Move = Required<components['schemas']['MoveForm']>
const { name, open = false } = defineProps<{ name: string; open?: boolean }>()
const desk = inject(alignKey)!
const a = computed(() => desk.answer.value!)
const fresh = () => Math.floor(Math.random() * 1e6) + 1
const rig = useLocalStorage(`tuyere-rig-${name}`, { seed: fresh(), made: [] as Move[], nth: 0 })
const typing = ref<Move>(blank('move') as Move)
const reveal = ref(false)
const says = ref('')
const body = (method = '', nth = rig.value.nth) => ({
  pair: {
    slope_rad: a.value.pair.slope_rad,
    centre_m: a.value.pair.centre_m,
    stationary_radius_m: a.value.pair.still_radius_m,
    movable_radius_m: a.value.pair.moving_radius_m,
    stationary_face_to_groove_m: a.value.pair.still_face_m,
    movable_face_to_groove_m: a.value.pair.moving_face_m,
  },
  feet: a.value.feet!,
  seed: rig.value.seed,
  degrees: 1.2,
  made: rig.value.made,
  typing: typing.value,
  method,
  nth,
  system: settings.value.system,
  reveal: reveal.value,
})
const { answer } = useAnswer(
  () => [typing.value, rig.value, reveal.value, a.value.feet],
  (signal) => unwrap(api.POST('/api/calc/align/rig', { body: body(), signal })),
)
useAnswers(answer)

async function read(): Promise<void> {
  const taken = desk.align.value.readings
  for (const [i, r] of taken.entries()) {
    const found = await unwrap(api.POST('/api/calc/align/rig', { body: body(r.method, rig.value.nth + i) }))
    for (const [key, entry] of Object.entries(found.points))
      r.quantities[key] = { text: entry.text ?? '', unit: entry.unit ?? '', origin: null }
  }
  rig.value = { ...rig.value, nth: rig.value.nth + taken.length }
  says.value = 'Read. The tools shake a little: the same again is never quite the same.'
}
function make(): void {
  rig.value = { ...rig.value, made: [...rig.value.made, JSON.parse(JSON.stringify(typing.value)) as Move] }
  typing.value = blank('move') as Move
  desk.clear()
  says.value = 'Moved, and drawn down: the bolts shift it a hair. Read it again.'
}
function another(): void {
  rig.value = { seed: fresh(), made: [], nth: 0 }
  desk.clear()
  reveal.value = false
  says.value = 'Another machine, as found.'
}
</script>

<template>
  <details class="rig" :open="open">
    <summary>Practise: simulated tools, hidden pose</summary>
    <div class="stack">
      <div class="row">
        <el-button type="primary" @click="read">Read it with the tools above</el-button>
        <span class="small soft">{{ rig.made.length ? `${rig.made.length} moves made` : 'as found' }}</span>
      </div>
      <p class="small" aria-live="polite">{{ says }}</p>
      <b>Make a move</b>
      <div class="two">
        <MeasureField
          v-for="i in [1, 2, 3, 4] as const"
          :key="i"
          v-model="typing[`lift_${i}`]"
          :name="`rig_lift_${i}`"
          field="face_place"
          :label="`Shims under foot ${i}`"
          :hint="i === 1 ? 'in +, out −' : ''"
          tight
        />
        <MeasureField v-model="typing.swing" name="rig_swing" field="edge_gap" label="Push feet 3 and 4 by" tight />
        <label class="tool"
          >to the
          <select v-model="typing.side" data-entry aria-label="Push them to the">
            <option value="left">left</option>
            <option value="right">right</option>
          </select>
        </label>
        <MeasureField
          v-model="typing.slide"
          name="rig_slide"
          field="edge_gap"
          :label="say(`Slide the ${a.wheel_word} by`)"
          tight
        />
        <label class="tool"
          >way
          <select v-model="typing.way" data-entry aria-label="Slide it">
            <option value="out">out, away from its body</option>
            <option value="in">back, toward its body</option>
          </select>
        </label>
      </div>
      <div class="row">
        <el-button :disabled="!answer?.any" @click="make">Make the move and draw the bolts down</el-button>
      </div>
      <div class="row foot">
        <button type="button" class="bare" @click="another"><u class="small">another machine</u></button>
        <button type="button" class="bare" @click="reveal = !reveal">
          <u class="small">{{ reveal ? 'hide the truth' : 'show the truth' }}</u>
        </button>
        <span v-if="answer?.truth.length" class="small truth">{{ answer.truth.join(', ') }}</span>
      </div>
    </div>
  </details>
</template>

<style scoped>
.rig {
  border: 1px dashed var(--ink-2);
  border-radius: 3px;
  padding: 0 12px;
}
summary {
  min-height: 46px;
  display: flex;
  align-items: center;
  cursor: pointer;
  font-weight: 560;
}
.stack {
  padding-bottom: 12px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 14px;
  align-items: end;
}
.tool {
  display: grid;
  gap: 3px;
  font-size: 13.5px;
  font-weight: 560;
}
.tool select {
  min-height: 46px;
  width: 100%;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  padding: 0 8px;
}
.foot button {
  min-height: 44px;
}
</style>
