<script setup lang="ts">
import { computed } from 'vue'

/** Link belting from the side: links hooked one into the next, each with its tab, and the way it should travel. */
const { tabs } = defineProps<{ tabs: string | null }>()
const wrong = computed(() => tabs === 'leading')
const said = computed(() =>
  wrong.value
    ? 'The tabs lead: turn the belt round'
    : tabs === 'trailing'
      ? 'The tabs trail: right'
      : 'Tabs must trail',
)
</script>

<template>
  <div class="frame">
    <svg viewBox="0 0 760 320" role="img" :aria-label="said">
      <g :transform="wrong ? 'matrix(-1 0 0 1 760 0)' : undefined">
        <g v-for="i in 6" :key="i" :transform="`translate(${70 + (i - 1) * 100} 132)`">
          <path class="tab" :class="{ ember: wrong }" d="M18 2 L-18 -30 h20 L40 2 z" />
          <path class="body" d="M8 2 h118 q14 0 14 13 t-14 13 h-118 q-14 0 -14 -13 t14 -13 z" />
          <circle class="pin" cx="14" cy="15" r="5" />
          <circle class="pin" cx="118" cy="15" r="5" />
        </g>
      </g>
      <path class="way" d="M280 216 h200 M462 206 l18 10 l-18 10" />
      <text x="380" y="204" text-anchor="middle">way of travel</text>
      <text x="380" y="262" text-anchor="middle" class="said" :class="{ ember: wrong }">{{ said }}</text>
    </svg>
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  place-items: center;
  min-height: 0;
  overflow: hidden;
}
svg {
  width: min(100%, 760px);
  max-height: 100%;
}
.body {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.4;
}
.pin {
  fill: none;
  stroke: var(--ink-2);
}
.tab {
  fill: var(--ink-2);
}
.tab.ember,
text.ember {
  fill: var(--ember);
}
.way {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.4;
}
text {
  font-size: 15px;
  fill: var(--ink-2);
}
.said {
  font-size: 19px;
  font-weight: 640;
  font-stretch: 78%;
  fill: var(--ink);
}
</style>
