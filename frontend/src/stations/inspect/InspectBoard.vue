<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, inject } from 'vue'

import type { Choices, DriveOut } from '../../api/client'
import { say } from '../../settings'
import RoundBoard from './RoundBoard.vue'
import SignList from './SignList.vue'
import WearBoard from './WearBoard.vue'
import { inspectKey, type Place } from './useInspect'

/** A drive to point at: tap where something is seen or heard, then what. */
defineOptions({ inheritAttrs: false })
const { ask } = defineProps<{ drive: DriveOut; choices: Choices; ask: string }>()
const desk = inject(inspectKey)!
const wide = useMediaQuery('(min-width: 761px)')
const chain = computed(() => ['chain', 'conveyor'].includes(desk.answer.value?.family ?? ''))
const count = (key: Place) => desk.places.value.find((p) => p.key === key)?.count ?? 0
const has = (key: Place) => desk.places.value.some((p) => p.key === key)
const SPOTS: { key: Place; x: number; y: number }[] = [
  { key: 'hear', x: 92, y: 56 },
  { key: 'belt', x: 300, y: 96 },
  { key: 'chain', x: 300, y: 96 },
  { key: 'wheel', x: 486, y: 190 },
  { key: 'strand', x: 300, y: 322 },
  { key: 'machine', x: 596, y: 300 },
  { key: 'past', x: 74, y: 346 },
  { key: 'conveyor', x: 420, y: 376 },
]
const title = (key: Place) => desk.places.value.find((p) => p.key === key)?.title ?? ''
</script>

<template>
  <WearBoard v-if="ask === 'wear'" />
  <RoundBoard v-else-if="ask === 'round'" :drive="drive" :choices="choices" />
  <slot v-else-if="ask === 'photos'" />
  <div v-else class="inspect" :class="{ told: desk.something.value }">
    <div class="picture">
      <svg viewBox="0 0 680 410" aria-hidden="true">
        <path d="M150 132 488 96" class="run" :class="{ chain }" />
        <path d="M150 292 488 348" class="run" :class="{ chain }" />
        <circle cx="150" cy="212" r="80" class="wheel ember" />
        <circle cx="150" cy="212" r="12" class="hub ember" />
        <circle cx="488" cy="222" r="126" class="wheel quench" />
        <circle cx="488" cy="222" r="16" class="hub quench" />
        <path d="M70 212a80 80 0 0 1 80-80 M70 212a80 80 0 0 0 80 80" class="run" :class="{ chain }" />
        <path d="M488 96a126 126 0 0 1 0 252" class="run" :class="{ chain }" />
        <path d="M104 300h92l14 34H90z M430 352h190v22H430z" class="base" />
        <path
          v-for="i in 3"
          :key="i"
          :d="`M${70 - 12 * i} ${130 - 10 * i}q-${8 + 5 * i} ${20 + 4 * i} -2 ${40 + 8 * i}`"
          class="sound"
        />
      </svg>
      <button
        v-for="s in SPOTS.filter((p) => has(p.key))"
        :key="s.key"
        type="button"
        class="spot"
        :class="{ on: desk.place.value === s.key, some: count(s.key) }"
        :aria-pressed="desk.place.value === s.key"
        :style="{ left: `${(s.x / 680) * 100}%`, top: `${(s.y / 410) * 100}%` }"
        @click="desk.place.value = s.key"
      >
        {{ say(title(s.key)) }}<b v-if="count(s.key)"> {{ count(s.key) }}</b>
      </button>
    </div>
    <SignList v-if="wide" />
  </div>
</template>

<style>
/* Once something is told, the verdict stays in sight on a phone in place of the picture. */
@media (max-width: 760px) {
  .board:has(> .inspect.told) {
    position: static;
  }
}
</style>

<style scoped>
.inspect {
  display: grid;
  grid-template-rows: minmax(180px, 0.9fr) minmax(0, 1fr);
  min-height: 0;
  min-width: 0;
}
.picture {
  position: relative;
  justify-self: center;
  height: 100%;
  max-width: 100%;
  aspect-ratio: 680 / 410;
  min-height: 0;
}
svg {
  width: 100%;
  height: 100%;
}
path,
circle {
  fill: none;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.run {
  stroke: var(--belt);
  stroke-width: 9;
}
.chain {
  stroke-width: 7;
  stroke-dasharray: 1 12;
}
.wheel {
  stroke-width: 2.4;
  fill: var(--sheet);
}
.hub {
  stroke-width: 2.4;
}
.ember {
  stroke: var(--ember);
}
.quench {
  stroke: var(--quench);
}
.base,
.sound {
  stroke: var(--ink-2);
  stroke-width: 1.6;
}
.spot {
  position: absolute;
  transform: translate(-50%, -50%);
  min-height: 44px;
  padding: 0 14px;
  border: 1px solid var(--ink);
  border-radius: 22px;
  background: var(--sheet);
  font-stretch: 80%;
  font-weight: 560;
  cursor: pointer;
  white-space: nowrap;
}
.spot.on {
  background: var(--ink);
  color: var(--sheet);
}
.spot b {
  margin-left: 5px;
}
.spot.some b {
  color: var(--ember);
}
.spot.on.some b {
  color: inherit;
}
@media (max-width: 760px) {
  .inspect {
    display: block;
  }
  .picture {
    height: 196px;
    margin: 0 auto;
  }
  .spot {
    padding: 0 8px;
    font-size: 13px;
    min-height: 36px;
  }
}
</style>
