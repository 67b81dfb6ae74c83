<script setup lang="ts">
import { type Ask, ASK_TITLES, ASKS } from './asks'

/** The questions of Survey; each has its own address, so that Back works. */
const { drive, ask, marks = {} } = defineProps<{ drive: string; ask: Ask; marks?: Partial<Record<Ask, string>> }>()
const to = (name: Ask) => `/drives/${drive}/survey${name === 'drive' ? '' : `/${name}`}`
</script>

<template>
  <nav class="asks no-print" aria-label="Questions">
    <router-link
      v-for="name in ASKS"
      :key="name"
      :to="to(name)"
      :class="{ here: name === ask }"
      :aria-current="name === ask ? 'true' : undefined"
    >
      {{ ASK_TITLES[name] }}
      <span v-if="marks[name]" class="mark" :title="marks[name]">
        <span aria-hidden="true">●</span>
        <span class="sr">{{ marks[name] }}</span>
      </span>
    </router-link>
  </nav>
</template>

<style scoped>
.asks {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  border-bottom: 1px solid var(--hair);
  background: var(--paper);
  position: sticky;
  top: 0;
  z-index: 3;
}
@media (max-width: 760px) {
  .asks {
    position: static;
  }
}
a {
  min-height: 44px;
  display: flex;
  align-items: center;
  justify-content: center;
  gap: 5px;
  text-decoration: none;
  color: var(--ink-2);
  font-stretch: 78%;
  font-size: 14.5px;
  border-left: 1px solid var(--hair-2);
  border-top: 1px solid var(--hair-2);
  white-space: nowrap;
}
a.here {
  color: var(--ink);
  font-weight: 640;
  background: var(--sheet);
  box-shadow: inset 0 3px 0 var(--ember);
}
.mark {
  color: var(--ember);
  font-size: 9px;
}
</style>
