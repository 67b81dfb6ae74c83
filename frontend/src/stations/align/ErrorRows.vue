<script setup lang="ts">
import { computed, inject } from 'vue'

import { inSystem } from '../../settings'
import FigureValue from '../../sheet/FigureValue.vue'
import { alignKey } from './useAlign'

/** Each error with its doubt on a rule whose middle is true and whose marks are what is allowed. */
const desk = inject(alignKey)!
const a = computed(() => desk.answer.value!)
const rows = computed(() =>
  a.value.errors.map((e) => {
    const most = Math.max(e.allowed * 2, Math.abs(e.value ?? 0) * 1.15)
    const x = (v: number) => 50 + (48 * v) / most
    const spread = 2 * (e.std ?? 0)
    return {
      ...e,
      figure: a.value.figures[e.key],
      low: x(-e.allowed),
      high: x(e.allowed),
      at: e.value === null ? null : x(e.value!),
      from: x(Math.max(-most, (e.value ?? 0) - spread)),
      to: x(Math.min(most, (e.value ?? 0) + spread)),
      out: e.value !== null && Math.abs(e.value!) > e.allowed,
    }
  }),
)
</script>

<template>
  <ul class="errors">
    <li v-for="r in rows" :key="r.key">
      <FigureValue v-if="r.figure" :figure="r.figure" :label="r.key" doubt />
      <span v-else class="unread"
        ><span class="small soft">{{ r.key }}</span> not read</span
      >
      <div class="scale">
        <svg viewBox="0 0 100 16" preserveAspectRatio="none" aria-hidden="true">
          <rect :x="r.low" y="3" :width="r.high - r.low" height="10" class="allowed" />
          <path d="M50 1v14" class="true" />
          <template v-if="r.at !== null">
            <path :d="`M${r.from} 8H${r.to}`" class="doubt" :class="{ out: r.out }" />
            <path :d="`M${r.at} 1v14`" class="is" :class="{ out: r.out }" />
          </template>
        </svg>
        <span class="small soft">
          allowed {{ r.key === 'offset' ? '' : `${r.allowed_text}, ` }}{{ inSystem(r.allowed_both) }}
          <b v-if="r.out" class="ember">out</b>
        </span>
      </div>
    </li>
  </ul>
</template>

<style scoped>
.errors {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
li {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 12px;
  align-items: center;
}
.unread {
  display: grid;
}
.scale svg {
  width: 100%;
  height: 18px;
  display: block;
}
.allowed {
  fill: var(--within-tint);
}
path {
  vector-effect: non-scaling-stroke;
  fill: none;
}
.true {
  stroke: var(--ink-2);
  stroke-width: 1px;
}
.is {
  stroke: var(--ink);
  stroke-width: 3px;
}
.doubt {
  stroke: var(--ink);
  stroke-width: 1.4px;
}
.out {
  stroke: var(--ember);
}
</style>
