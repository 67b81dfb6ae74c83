<script setup lang="ts">
import type { components } from '../api/schema'

/** A set with any number of its belts missing: what is still carried, and how hard to run it. */
type ShortSet = components['schemas']['ShortSet']
const { short, pick = false } = defineProps<{ short: ShortSet[]; pick?: boolean }>()
const emit = defineEmits<{ pick: [left: number] }>()
const percent = (share: number) => `${Math.round(share * 100)}%`
const whole = () => (short[0]?.left ?? 0) + 1
</script>

<template>
  <section v-if="short.length" class="short">
    <h3>With belts missing <span class="soft small">to get home</span></h3>
    <ul>
      <li v-for="s in short" :key="s.left">
        <span class="belts" aria-hidden="true"><i v-for="n in whole()" :key="n" :class="{ gone: n > s.left }" /></span>
        <span class="said">
          <b>{{ s.left }} of {{ whole() }} on:</b>
          {{ s.of_load === null ? `${percent(s.of_set)} of the full set` : `${percent(s.of_load)} of the design load` }}
          <br /><span class="small soft">{{ s.run }} Full set back on within {{ s.days }} days.</span>
        </span>
        <button v-if="pick" type="button" class="bare" @click="emit('pick', s.left)"><u>this one</u></button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  border-top: 1px solid var(--hair-2);
  padding: 5px 0;
}
.belts {
  display: flex;
  gap: 3px;
  min-width: 44px;
}
.belts i {
  width: 10px;
  height: 14px;
  background: var(--ink);
  clip-path: polygon(0 0, 100% 0, 72% 100%, 28% 100%);
}
.belts .gone {
  background: var(--hair);
}
button {
  min-height: 44px;
}
</style>
