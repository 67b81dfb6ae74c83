<script setup lang="ts">
import { computed, inject } from 'vue'

import LookPicture from '../../looks/LookPicture.vue'
import { say } from '../../settings'
import { inspectKey } from './useInspect'

/** What may be tapped at the place pointed to: there, not so, not said. */
const desk = inject(inspectKey)!
const title = computed(() => desk.places.value.find((p) => p.key === desk.place.value)?.title ?? '')
</script>

<template>
  <ul class="signs" :aria-label="title">
    <li v-for="s in desk.signs.value" :key="s.key">
      <button
        type="button"
        :class="desk.state(s.key)"
        :aria-pressed="desk.state(s.key) === 'there'"
        @click="desk.tap(s.key)"
      >
        <span v-if="s.look" class="look"><LookPicture :look="s.look" /></span>
        <span>{{ say(s.question) }}<span v-if="desk.state(s.key) === 'not'" class="soft"> (not so)</span></span>
        <span class="mark" aria-hidden="true">{{ { there: '✓', not: '–', '': '' }[desk.state(s.key)] }}</span>
      </button>
    </li>
  </ul>
</template>

<style scoped>
.signs {
  list-style: none;
  margin: 0;
  padding: 10px 16px;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 6px;
  align-content: start;
  overflow-y: auto;
  border-top: 1px solid var(--hair);
  background: var(--sheet);
}
.signs button {
  display: flex;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: 48px;
  padding: 6px 10px 6px 8px;
  text-align: left;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: none;
  cursor: pointer;
  font-size: 14.5px;
  line-height: 1.25;
}
.signs .there {
  border-color: var(--ember);
  box-shadow: inset 4px 0 0 var(--ember);
  font-weight: 600;
}
.signs .not {
  color: var(--ink-2);
}
.look {
  flex: 0 0 50px;
}
.mark {
  flex: 0 0 16px;
  margin-left: auto;
  font-size: 17px;
  font-weight: 640;
  text-align: center;
}
@media (max-width: 760px) {
  .signs {
    padding: 0;
    grid-template-columns: 1fr;
    border-top: 0;
    overflow: visible;
  }
}
</style>
