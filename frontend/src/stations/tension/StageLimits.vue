<script setup lang="ts">
import { computed, inject, ref } from 'vue'

import type { Choices } from '../../api/client'
import { inSystem, say } from '../../settings'
import MeasureField from '../../sheet/MeasureField.vue'
import WordField from '../survey/WordField.vue'
import { SHAFT_FIELDS, tensionKey } from './useTension'

/** What stands with the stage: how much it is to hold, the manual's figure, the screws, and each wheel's shaft and bearings. */
const { choices } = defineProps<{ choices: Choices }>()
const desk = inject(tensionKey)!
const kept = computed(() => desk.stage.value.kept)
const wheel = ref(1)
const bearing = computed(() => kept.value.words[`wheel_${wheel.value}_bearing`] ?? '')
const fields = computed(() =>
  SHAFT_FIELDS.filter((f) => ('only' in f ? f.only === bearing.value : 'but' in f ? f.but !== bearing.value : true)),
)
const judged = computed(() => desk.tight.value?.uppers.filter((u) => u.text) ?? [])
/** What is not judged, wheel by wheel, with the one thing to ask first. */
const open = computed(() => {
  const found = new Map<string, { wheel: string; names: string[]; ask: string }>()
  for (const u of desk.tight.value?.uppers ?? []) {
    if (u.text) continue
    const at = found.get(u.wheel)
    if (at) at.names.push(u.name)
    else found.set(u.wheel, { wheel: u.wheel, names: [u.name], ask: u.ask })
  }
  return [...found.values()]
})
const BEARINGS = [
  { value: '', label: 'not known' },
  { value: 'ball', label: 'ball bearing' },
  { value: 'roller', label: 'roller bearing' },
  { value: 'bushing', label: 'bronze bushing' },
]
const PUSHES = [
  { value: '', label: 'not said' },
  { value: 'belt', label: 'one belt' },
  { value: 'rib', label: 'one rib' },
  { value: 'band', label: 'the whole band' },
]
const grip = computed({
  get: () => Number(kept.value.words.grip || desk.tight.value?.grip || 1.3),
  set: (times) => (kept.value.words.grip = String(times)),
})
const word = (key: string) =>
  computed({ get: () => kept.value.words[key] ?? '', set: (said: string) => (kept.value.words[key] = said) })
const start = word('start')
const startBy = word('start_by')
const surface = word('surface')
const letsGo = word('lets_go')
const joint = word('joint')
const within = word('manual_within')
/** What a start comes to where nobody says its torque. */
const startHint = computed(() => desk.tight.value?.start.toFixed(1) ?? '')
const JOINTS = ['', 'cemented lap', 'metal hooks', 'hinged plates', 'rawhide'].map((j) => ({
  value: j,
  label: j || 'endless, or not said',
}))
const jolt = word('jolt')
const pushes = word('manual_pushes')
const byManual = computed({
  get: () => kept.value.words.aim_by === 'manual',
  set: (on: boolean) => (kept.value.words.aim_by = on ? 'manual' : ''),
})
const bearingWord = computed({
  get: () => bearing.value,
  set: (said: string) => (kept.value.words[`wheel_${wheel.value}_bearing`] = said),
})
const at = (key: string, field: string) => desk.entry(kept.value.quantities, key, field)
const put = (key: string) => (entry: ReturnType<typeof at>) => (kept.value.quantities[key] = entry)
</script>

<template>
  <details class="fold">
    <summary>What it must hold, and what its bearings stand</summary>
    <div class="two">
      <WordField
        v-model="startBy"
        name="start_by"
        label="How it starts"
        :options="[{ value: '', label: 'not said: straight on the line' }, ...choices.start_by]"
      />
      <WordField v-model="start" name="start" label="Torque at a start, times full load" :placeholder="startHint" />
      <WordField
        v-if="desk.tight.value?.settles"
        v-model="surface"
        name="surface"
        label="The faces it runs on"
        :options="[{ value: '', label: 'clean and dry' }, ...choices.surfaces.slice(1)]"
      />
      <WordField
        v-if="desk.tight.value?.settles"
        v-model="letsGo"
        name="lets_go"
        label="Lets go at, tight over slack"
        placeholder="by its kind"
      />
      <WordField v-model="jolt" name="jolt" label="Torque in a jolt, times running" placeholder="by the machine" />
      <WordField
        v-if="desk.stage.value.fitted.family === 'flat belt'"
        v-model="joint"
        name="joint"
        label="Its joint"
        :options="JOINTS"
      />
    </div>
    <p v-if="desk.tight.value?.grips" class="small soft">{{ desk.tight.value.grips }}</p>
    <label class="grip">
      Margin: {{ grip.toFixed(1) }} times the load
      <input v-model.number="grip" type="range" min="1" max="2" step="0.1" />
    </label>
    <ul v-if="desk.tight.value?.uppers.length" class="uppers">
      <li v-for="u in judged" :key="`${u.name} ${u.place}`">
        <b>{{ u.name }}</b>{{ u.wheel ? `, ${say(u.wheel)}` : '' }}: ends at {{ inSystem(u.text!) }}
      </li>
      <li v-for="n in open" :key="n.wheel" class="soft">
        Not judged{{ n.wheel ? ` at the ${say(n.wheel)}` : '' }}: {{ n.names.join(', ') }}. Ask first for {{ n.ask }}.
      </li>
    </ul>
    <template v-if="desk.tight.value">
      <div class="wheels" role="radiogroup" aria-label="Which wheel's shaft">
        <label v-for="(name, i) in desk.tight.value.wheels" :key="name" :class="{ on: wheel === i + 1 }">
          <input v-model="wheel" type="radio" class="sr" name="shaft-of" :value="i + 1" />
          {{ say(name) }}
        </label>
      </div>
      <div :key="wheel" class="two">
        <WordField v-model="bearingWord" :name="`wheel_${wheel}_bearing`" label="Near bearing" :options="BEARINGS" />
        <MeasureField
          v-for="f in fields"
          :key="f.key"
          :model-value="at(`wheel_${wheel}_${f.key}`, f.field)"
          :name="`wheel_${wheel}_${f.key}`"
          :field="f.field"
          :label="f.label"
          @update:model-value="put(`wheel_${wheel}_${f.key}`)($event)"
        />
      </div>
    </template>
  </details>
  <details class="fold">
    <summary>The manual’s figure, and the take-up’s screws</summary>
    <div class="two">
      <MeasureField
        v-for="f in [
          { key: 'manual_force', field: 'force', label: 'Manual: push with' },
          { key: 'manual_deflection', field: 'deflection', label: '…until it is down by' },
        ]"
        :key="f.key"
        :model-value="at(f.key, f.field)"
        :name="f.key"
        :field="f.field"
        :label="f.label"
        @update:model-value="put(f.key)($event)"
      />
      <WordField v-model="pushes" name="manual_pushes" label="Its force pushes" :options="PUSHES" />
      <WordField v-model="within" name="manual_within" label="Give or take, percent" placeholder="20" />
      <MeasureField
        :model-value="at('manual_tension', 'belt_tension')"
        name="manual_tension"
        field="belt_tension"
        label="Or the tension it says"
        @update:model-value="put('manual_tension')($event)"
      />
      <MeasureField
        :model-value="at('screw_pitch', 'screw_pitch')"
        name="screw_pitch"
        label="One turn of a take-up screw"
        @update:model-value="put('screw_pitch')($event)"
      />
    </div>
    <el-checkbox v-model="byManual">Go by the manual’s figure on this drive</el-checkbox>
  </details>
</template>

<style scoped>
.fold {
  border-top: 1px solid var(--hair);
}
summary {
  min-height: 46px;
  display: flex;
  align-items: center;
  cursor: pointer;
  font-weight: 560;
}
summary::after {
  content: '+';
  margin-left: auto;
  color: var(--ink-2);
  font-size: 20px;
}
[open] > summary::after {
  content: '–';
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 14px;
  padding: 6px 0 10px;
  align-items: start;
}
.grip {
  display: grid;
  gap: 2px;
  font-size: 14px;
  font-weight: 560;
}
.grip input {
  width: 100%;
  min-height: 40px;
  accent-color: var(--ink);
}
.uppers {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 5px;
  font-size: 14px;
}
.wheels {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 12px 0 4px;
}
.wheels label {
  border: 1px solid var(--hair);
  border-radius: 3px;
  padding: 9px 12px;
  min-height: 44px;
  cursor: pointer;
  font-size: 14px;
}
.wheels .on {
  background: var(--ink);
  color: var(--sheet);
}
.wheels label:focus-within {
  outline: 2px solid var(--focus);
}
</style>
