<script setup lang="ts">
import { computed, inject } from 'vue'

import { say } from '../../settings'
import AlignFeet from './AlignFeet.vue'
import { alignKey } from './useAlign'

/** The corrections in order, the one looked at drawn on the feet. */
const desk = inject(alignKey)!
const a = computed(() => desk.answer.value!)
const chosen = computed(() => Math.min(desk.looked.value, a.value.steps.length - 1))
/** What is said where there is nothing to move. */
const said = computed(() => (a.value.steps.length ? a.value.words.filter((w) => !/^\d\. /.test(w)) : a.value.words))
</script>

<template>
  <div class="do" :class="{ bare: !a.steps.length }">
    <AlignFeet />
    <div class="list">
      <p v-for="w in said" :key="w" class="small">{{ say(w) }}</p>
      <ol v-if="a.steps.length">
        <li v-for="(s, i) in a.steps" :key="s.text">
          <button
            type="button"
            class="bare"
            :class="{ on: i === chosen }"
            :aria-pressed="i === chosen"
            @click="desk.looked.value = i"
          >
            <b class="n">{{ i + 1 }}</b>
            <span>
              {{ say(s.text) }}
              <span v-if="s.effect" class="soft small">{{ say(s.effect) }}</span>
            </span>
          </button>
        </li>
      </ol>
      <p v-else-if="a.wants.length" class="small">
        Say {{ a.wants.join(' and ') }}: then it says which foot to move, which way and how far.
      </p>
      <p v-else-if="!said.length" class="small soft">Read it: the corrections stand here, in order.</p>
    </div>
  </div>
</template>

<style scoped>
.do {
  display: grid;
  grid-template-columns: minmax(230px, 0.8fr) minmax(0, 1fr);
  gap: 8px 18px;
  align-items: start;
}
.list {
  display: grid;
  gap: 6px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
button {
  display: grid;
  grid-template-columns: 26px 1fr;
  gap: 8px;
  width: 100%;
  padding: 7px 10px 7px 6px;
  border-left: 4px solid transparent;
  min-height: 44px;
  font-size: 14px;
  line-height: 1.32;
}
button > span {
  display: grid;
  gap: 2px;
}
.on {
  border-left-color: var(--ember);
  background: var(--paper);
}
.n {
  font-size: 20px;
  font-stretch: 72%;
  line-height: 1.1;
  text-align: center;
}
@media (max-width: 760px) {
  .do {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
