<script setup lang="ts">
import { computed, inject } from 'vue'

import LookPicture from '../../looks/LookPicture.vue'
import { say } from '../../settings'
import { when } from '../../words'
import { wearKey } from './useWear'
import WearChart from './WearChart.vue'

/** What to measure, drawn; and every place of it on the drive, with what was measured there last. */
const desk = inject(wearKey)!
const { answer: a, form } = desk
const measured = computed(() => a.value?.places.filter((p) => p.at).length ?? 0)
/** The readings of the place in hand: one place's say nothing of another's. */
const ofThis = computed(() => {
  const kept = a.value?.kept ?? []
  const alone = new Set(kept.map((k) => k.where)).size === 1
  return kept.filter((k) => k.where === form.value.where || (!form.value.where && alone))
})
</script>

<template>
  <div class="wear">
    <template v-if="a">
      <figure class="subject">
        <LookPicture :look="a.look" />
        <figcaption>
          <b>{{ a.whats[a.what] }}</b>
          <span class="soft">
            {{ say(a.measured) }}<template v-if="a.unit !== 'look'">; limit {{ a.limit }}</template>
          </span>
        </figcaption>
      </figure>
      <WearChart
        v-if="a.unit !== 'look' && ofThis.length + (a.share === null ? 0 : 1) > 1"
        class="chart"
        :readings="ofThis"
        :runs-out="a.runs_out"
        :now="a.share"
      />
      <section v-if="a.places.length" aria-label="Every place of it">
        <p class="head">
          <b>Every one on the path</b>
          <span class="soft">{{ measured }} of {{ a.places.length }} measured since the part went on</span>
        </p>
        <ul>
          <li v-for="p in a.places" :key="p.where">
            <button type="button" :class="{ here: form.where === p.where }" @click="desk.goTo(p.where)">
              <span>{{ say(p.where) }}</span>
              <span v-if="p.share !== null" class="last">
                <b :class="{ ember: p.share >= 1 }">{{ p.text }}</b>
                <span class="small soft">{{ when(p.at!) }}</span>
                <span class="level" aria-hidden="true"
                  ><i :style="{ width: `${Math.min(1, p.share) * 100}%` }" :class="{ out: p.share >= 1 }"
                /></span>
              </span>
              <span v-else class="small soft">not yet</span>
            </button>
          </li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.wear {
  min-height: 0;
  overflow-y: auto;
  padding: 18px 24px;
  display: grid;
  gap: 16px;
  align-content: start;
}
.subject {
  margin: 0 auto;
  width: min(340px, 100%);
  --line: 0.6;
}
.subject :deep(svg) {
  background: var(--sheet);
  border: 1px solid var(--hair-2);
}
.wear:has(.chart) {
  grid-template-columns: minmax(200px, 280px) 1fr;
}
.wear:has(.chart) section {
  grid-column: 1 / -1;
}
.subject figcaption {
  display: grid;
  padding-top: 8px;
}
.subject figcaption b {
  font-size: 20px;
  font-stretch: 78%;
}
.head {
  display: flex;
  gap: 12px;
  justify-content: space-between;
  flex-wrap: wrap;
}
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
  gap: 6px;
}
li button {
  width: 100%;
  min-height: 56px;
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: center;
  text-align: left;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  padding: 6px 12px;
  cursor: pointer;
}
.here {
  box-shadow: inset 4px 0 0 var(--ink);
  font-weight: 620;
}
.last {
  display: grid;
  justify-items: end;
}
.level {
  width: 80px;
  height: 5px;
  background: var(--hair-2);
}
.level i {
  display: block;
  height: 100%;
  background: var(--ink);
}
.level .out {
  background: var(--ember);
}
@media (max-width: 760px) {
  .wear,
  .wear:has(.chart) {
    grid-template-columns: minmax(0, 1fr);
    padding: 10px 14px;
    overflow: visible;
    gap: 8px;
  }
  .subject {
    width: 100%;
    display: grid;
    grid-template-columns: 128px 1fr;
    gap: 12px;
    align-items: center;
  }
  ul {
    grid-auto-flow: column;
    grid-template-columns: none;
    grid-auto-columns: 200px;
    overflow-x: auto;
    padding-bottom: 4px;
  }
}
</style>
