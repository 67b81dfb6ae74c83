<script setup lang="ts">
import { computed, inject } from 'vue'

import { inSystem, say } from '../../settings'
import FigureValue from '../../sheet/FigureValue.vue'
import MeasureField from '../../sheet/MeasureField.vue'
import WordField from '../survey/WordField.vue'
import { alignKey } from './useAlign'

/** How true it has to be, by whom; where the faces and grooves are; and what it costs to leave an error. */
const desk = inject(alignKey)!
const a = computed(() => desk.answer.value!)
const note = desk.word(() => 'align_note')
const at = (name: string, field: string) => desk.entry(desk.kept.value.quantities, name, field)
const put = (name: string) => (e: ReturnType<typeof at>) => (desk.kept.value.quantities[name] = e)
const sides = computed(() => [
  {
    which: 'moving',
    name: a.value.moving_name,
    groove: a.value.grooves[0],
    free: desk.word(() => desk.key('free_moving')),
  },
  {
    which: 'still',
    name: a.value.still_name,
    groove: a.value.grooves[1],
    free: desk.word(() => desk.key('free_still')),
  },
])
</script>

<template>
  <details class="fold">
    <summary>Rims, faces and grooves</summary>
    <p class="small">
      The belt runs in the groove, the edge lies on the face: where one rim is thicker, or one wheel has a groove more,
      the difference is taken off every reading of faces.
    </p>
    <div class="two">
      <template v-for="s in sides" :key="s.which">
        <MeasureField
          :model-value="at(desk.key(`face_${s.which}`), 'face_to_groove')"
          :name="desk.key(`face_${s.which}`)"
          field="face_to_groove"
          :label="`${s.name}: face to groove’s middle`"
          :hint="s.groove ? `${inSystem(s.groove)} by table` : ''"
          @update:model-value="put(desk.key(`face_${s.which}`))($event)"
        />
        <MeasureField
          :model-value="at(desk.key(`edge_${s.which}`), 'wheel_diameter')"
          :name="desk.key(`edge_${s.which}`)"
          field="wheel_diameter"
          :label="`${s.name}: diameter where the edge touches`"
          @update:model-value="put(desk.key(`edge_${s.which}`))($event)"
        />
      </template>
      <template v-if="a.seat === 'groove'">
        <WordField
          v-for="s in sides"
          :key="s.which"
          v-model="s.free.value"
          :name="desk.key(`free_${s.which}`)"
          :label="`${s.name}: empty grooves at the outer side`"
          placeholder="0"
        />
      </template>
    </div>
  </details>
  <details class="fold">
    <summary>Alignment tolerance</summary>
    <p class="small">{{ say(a.source) }}.</p>
    <FigureValue v-if="a.figures.entry" :figure="a.figures.entry" label="Belt entry angle, worse wheel" />
    <div class="two">
      <MeasureField
        :model-value="at('align_angle', 'true_angle')"
        name="align_angle"
        field="true_angle"
        label="Our own: angle and twist"
        @update:model-value="put('align_angle')($event)"
      />
      <MeasureField
        :model-value="at('align_offset', 'true_offset')"
        name="align_offset"
        field="true_offset"
        label="Our own: offset"
        @update:model-value="put('align_offset')($event)"
      />
    </div>
    <WordField v-model="note" name="align_note" label="Why, or whose" placeholder="plant standard, machine’s manual" />
  </details>
  <details class="fold">
    <summary>What it costs to leave it</summary>
    <p v-for="c in a.costs" :key="c.error" class="small">
      <b>{{ c.error }}</b>: {{ say(c.cost) }} <span class="soft">({{ c.evidence }})</span>
    </p>
  </details>
</template>

<style scoped>
.fold {
  border-top: 1px solid var(--hair);
}
.fold summary {
  min-height: 46px;
  display: flex;
  align-items: center;
  cursor: pointer;
  font-weight: 560;
}
.fold[open] {
  padding-bottom: 10px;
}
.fold > p {
  margin-bottom: 8px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 14px;
  align-items: end;
}
</style>
