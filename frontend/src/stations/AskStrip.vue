<script setup lang="ts" generic="T extends string">
/** The questions of a station; each has its own address, so that Back works. The first is the station's own. */
const {
  base,
  asks,
  titles,
  ask,
  marks = {},
} = defineProps<{
  base: string
  asks: readonly T[]
  titles: Record<T, string>
  ask: T
  marks?: Partial<Record<T, string>>
}>()
const to = (name: T) => (name === asks[0] ? base : `${base}/${name}`)
const mark = (name: T) => (marks as Partial<Record<T, string>>)[name]
</script>

<template>
  <nav class="asks no-print" :class="{ five: asks.length === 5 }" aria-label="Questions">
    <router-link
      v-for="name in asks"
      :key="name"
      :to="to(name)"
      :class="{ here: name === ask }"
      :aria-current="name === ask ? 'true' : undefined"
    >
      {{ titles[name] }}
      <span v-if="mark(name)" class="mark" :title="mark(name)">
        <span aria-hidden="true">●</span>
        <span class="sr">{{ mark(name) }}</span>
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
.five {
  grid-template-columns: repeat(5, auto);
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
