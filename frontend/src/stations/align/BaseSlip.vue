<script setup lang="ts">
import { computed, inject, ref } from 'vue'

import { say } from '../../settings'
import MeasureField from '../../sheet/MeasureField.vue'
import WordField from '../survey/WordField.vue'
import AlignFeet from './AlignFeet.vue'
import { alignKey, FEET_FIELDS } from './useAlign'

/** Which machine moves and what it stands on: asked once on a picture, then one line. */
const desk = inject(alignKey)!
const a = computed(() => desk.answer.value!)
const change = ref(false)
const known = computed(() => Boolean(a.value.base) && !a.value.wants.length)
const two = computed(() => a.value.wheels.length === 2)
const base = desk.word(() => desk.key('base'))
const body = desk.word(() => desk.key('body'))
const moves = desk.word(() => 'align_moves')
const stock = desk.word(() => 'align_stock')
const own = ref(false)
const stocks = computed(() => [...Object.entries(a.value.stocks).map(([value, label]) => ({ value, label })), { value: 'own', label: 'A list of our own' }]) // prettier-ignore
const ownList = computed(() => own.value || (stock.value !== '' && !(stock.value in a.value.stocks)))
const picked = computed({
  get: () => (ownList.value ? 'own' : stock.value || 'metric'),
  set: (said: string) => {
    own.value = said === 'own'
    stock.value = said === 'own' ? '' : said
  },
})
const LIES = { level: 'lies level', steep: 'lies on a slope', upright: 'stands upright' } as const
const lies = computed(() => LIES[a.value.pair.lie as keyof typeof LIES])
const cures = computed(
  () =>
    ({
      level: 'shims cure the twist, swinging the feet the angle',
      upright: 'shims cure the angle, swinging the feet the twist',
      steep: 'shims and swinging each cure a part of both',
    })[a.value.pair.lie as keyof typeof LIES],
)
const other = computed(() => (a.value.wheel === 1 ? '2' : '1'))
const hasFeet = computed(() => a.value.bases.find((b) => b.value === base.value)?.has_feet ?? false)
</script>

<template>
  <div v-if="known && !change" class="line">
    <span>
      The <b>{{ say(a.moving_name) }}</b> moves, on
      <b>{{ a.bases.find((b) => b.value === a.base)?.label.toLowerCase() }}</b>
    </span>
    <button type="button" class="bare" @click="change = true"><u class="small">change</u></button>
  </div>
  <section v-else class="base" aria-label="What it stands on">
    <div v-if="two" class="row which">
      <span>The {{ say(a.moving_name) }} moves.</span>
      <button type="button" class="bare" @click="moves = other">
        <u class="small">No, the {{ say(a.still_name) }}</u>
      </button>
    </div>
    <WordField
      v-model="base"
      name="base"
      :label="`What does the ${a.moving_name} stand on?`"
      :options="a.bases.map((b) => ({ value: b.value, label: b.label }))"
    />
    <WordField
      :model-value="body || 'behind'"
      name="body"
      :label="`On the drawing, the ${a.moving_name}’s body lies`"
      :options="[
        { value: 'behind', label: 'behind its wheel, as usual' },
        { value: 'in front', label: 'in front of it, on your side' },
      ]"
      @update:model-value="body = $event"
    />
    <template v-if="hasFeet">
      <AlignFeet asks />
      <div class="two">
        <MeasureField
          v-for="f in FEET_FIELDS"
          :key="f.key"
          :model-value="desk.entry(desk.kept.value.quantities, desk.key(f.key), 'foot_arm')"
          :name="desk.key(f.key)"
          field="foot_arm"
          :label="f.label"
          @update:model-value="desk.kept.value.quantities[desk.key(f.key)] = $event"
        />
      </div>
      <WordField v-model="picked" name="stock" label="Shims at hand" :options="stocks" />
      <WordField
        v-if="ownList"
        v-model="stock"
        name="align_stock"
        label="Thicknesses, with their unit"
        placeholder="0.1 0.25 0.5 1 mm"
      />
      <details>
        <summary class="small">Shims that lie there now</summary>
        <div class="two">
          <MeasureField
            v-for="i in 4"
            :key="i"
            :model-value="desk.entry(desk.kept.value.quantities, desk.key(`shims_${i}`), 'shims_now')"
            :name="desk.key(`shims_${i}`)"
            field="shims_now"
            :label="`Under foot ${i}`"
            @update:model-value="desk.kept.value.quantities[desk.key(`shims_${i}`)] = $event"
          />
        </div>
      </details>
    </template>
    <button v-if="known" type="button" class="bare" @click="change = false"><u class="small">done</u></button>
  </section>
  <p class="small soft lies">The line of centres {{ lies }}, as surveyed{{ hasFeet || !base ? `: ${cures}` : '' }}.</p>
</template>

<style scoped>
.line,
.which {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: 44px;
  gap: 10px;
}
.which button {
  min-height: 44px;
}
.base {
  display: grid;
  gap: 8px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 14px;
}
.lies {
  margin-top: -8px;
}
summary {
  min-height: 40px;
  cursor: pointer;
  display: flex;
  align-items: center;
}
</style>
