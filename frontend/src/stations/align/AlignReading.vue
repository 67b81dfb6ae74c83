<script setup lang="ts">
import { computed, inject, ref } from 'vue'

import { say } from '../../settings'
import MeasureField from '../../sheet/MeasureField.vue'
import WordField from '../survey/WordField.vue'
import AlignMethodPicture from './AlignMethodPicture.vue'
import HeadTargets from './HeadTargets.vue'
import { alignKey } from './useAlign'

/** One reading: by which method, how to go about it, and its points. */
const { index } = defineProps<{ index: number }>()
const desk = inject(alignKey)!
const a = computed(() => desk.answer.value!)
const reading = computed(() => desk.align.value.readings[index]!)
const taken = computed(() => a.value.taken[index])
const same = computed(() => taken.value?.method === reading.value.method)
const method = computed(() => a.value.methods.find((m) => m.key === taken.value?.method))
const open = ref(false)
const how = ref(false)
const sees = computed(() => (method.value?.sees.length ? `sees ${method.value.sees.join(', ')}` : ''))
const track = computed({
  get: () => reading.value.words.track ?? '',
  set: (said: string) => (reading.value.words.track = said),
})
function choose(key: string): void {
  if (key !== reading.value.method) desk.choose(index, key)
  desk.at.value = index
  open.value = false
}
</script>

<template>
  <section v-if="taken" class="reading" :aria-label="`Reading ${index + 1}`" @focusin="desk.at.value = index">
    <button type="button" class="bare chosen" :aria-expanded="open" @click="open = !open">
      <AlignMethodPicture :method="taken.method" />
      <span>
        <span class="soft small">Read by{{ sees ? `, ${sees}` : '' }}</span>
        <b>{{ say(method?.label ?? '') }}</b>
      </span>
      <u class="small">{{ open ? 'this one' : 'another way' }}</u>
    </button>
    <div v-if="open" class="methods" role="radiogroup" :aria-label="`Reading ${index + 1} by`">
      <label v-for="m in a.methods" :key="m.key" :class="{ on: m.key === taken.method }">
        <input
          type="radio"
          class="sr"
          :name="`method-${index}`"
          :checked="m.key === taken.method"
          @change="choose(m.key)"
        />
        <AlignMethodPicture :method="m.key" />
        {{ say(m.label) }}
      </label>
    </div>
    <ol class="steps">
      <li v-for="(s, i) in taken.steps" v-show="how || i < 2" :key="s">{{ say(s) }}</li>
    </ol>
    <button v-if="taken.steps.length > 2" type="button" class="bare more" @click="how = !how">
      <u class="small">{{ how ? 'less' : `${taken.steps.length - 2} more to mind` }}</u>
    </button>
    <HeadTargets v-if="taken.method === 'two_heads'" :reading="index" />
    <div v-if="same" class="points">
      <MeasureField
        v-for="p in taken.points"
        :key="p.key"
        :model-value="desk.entry(reading.quantities, p.key, p.field)"
        :name="`r${index + 1}_${p.key}`"
        :field="p.field"
        :label="p.label"
        @update:model-value="reading.quantities[p.key] = $event"
      />
      <WordField
        v-if="taken.words.length"
        v-model="track"
        name="track"
        label="It runs"
        :options="[
          { value: 'middle', label: 'in the middle' },
          { value: 'out', label: 'toward the outer side' },
          { value: 'in', label: 'toward the machine' },
        ]"
      />
    </div>
    <div class="foot">
      <span class="small soft">{{ say(taken.lacks) }}</span>
      <button v-if="desk.align.value.readings.length > 1" type="button" class="bare" @click="desk.remove(index)">
        <u class="small">take this one away</u>
      </button>
    </div>
  </section>
</template>

<style src="../methods.css" scoped></style>
<style scoped>
.reading {
  display: grid;
  gap: 10px;
}
.steps {
  margin: 0;
  padding-left: 20px;
  display: grid;
  gap: 5px;
  font-size: 14px;
}
.more {
  justify-self: start;
  min-height: 30px;
}
.points {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 14px;
  align-items: end;
}
.foot {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
</style>
