<script setup lang="ts" generic="T extends object">
import { computed, onMounted, ref } from 'vue'

import type { Problem } from '../api/client'
import { when } from '../words'
import { clashes, merged } from './clash'

/**
 * Somebody kept it in between: both values of each field that differs, and a choice for each. All stays in the log.
 * `theirs` is the record as it is after `refresh`, `was` the one that `mine` began from.
 */
const { problem, refresh, mine, theirs, was } = defineProps<{
  problem: Problem
  refresh: () => Promise<unknown>
  mine: T
  theirs: T
  was: T
}>()
const emit = defineEmits<{ keep: [chosen: T]; theirs: [] }>()
const loaded = ref(false)
const mineWanted = ref(new Set<string>())
const rows = computed(() => clashes(mine, theirs, was))
const who = computed(() => {
  const since = (problem.since ?? []) as { at: string; who: string; action: string }[]
  return since.map((s) => `${s.who || 'Somebody'} ${s.action}, ${when(s.at)}`).join('; ')
})
onMounted(async () => {
  await refresh()
  mineWanted.value = new Set(rows.value.filter((row) => row.changedHere).map((row) => row.path))
  loaded.value = true
})
function choose(path: string, mine: boolean): void {
  const next = new Set(mineWanted.value)
  if (mine) next.add(path)
  else next.delete(path)
  mineWanted.value = next
}
function keep(): void {
  emit('keep', merged(mine, theirs, mineWanted.value))
}
</script>

<template>
  <el-dialog
    :model-value="true"
    title="Changed while you were at it"
    width="min(620px, 96vw)"
    append-to-body
    :show-close="false"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
  >
    <div class="stack">
      <p>{{ who }}. Nothing of yours is lost: choose for each field which value shall stand.</p>
      <p v-if="loaded && !rows.length">Both say the same.</p>
      <div v-else class="rows" role="group" aria-label="Fields that differ">
        <span class="head">Field</span>
        <span class="head">Yours</span>
        <span class="head">Theirs</span>
        <template v-for="row in rows" :key="row.path">
          <span class="label">{{ row.label }}</span>
          <label :class="{ picked: mineWanted.has(row.path) }">
            <input
              type="radio"
              :name="row.path"
              :checked="mineWanted.has(row.path)"
              :aria-label="`${row.label}: yours, ${row.mine}`"
              @change="choose(row.path, true)"
            />
            {{ row.mine }}
          </label>
          <label :class="{ picked: !mineWanted.has(row.path) }">
            <input
              type="radio"
              :name="row.path"
              :checked="!mineWanted.has(row.path)"
              :aria-label="`${row.label}: theirs, ${row.theirs}`"
              @change="choose(row.path, false)"
            />
            {{ row.theirs }}
          </label>
        </template>
      </div>
      <p class="small soft">Whichever you choose, both stay in the log.</p>
    </div>
    <template #footer>
      <el-button @click="$emit('theirs')">Take all of theirs</el-button>
      <el-button type="primary" :disabled="!loaded || !mineWanted.size" @click="keep">
        {{ mineWanted.size === 1 ? 'Keep mine in 1 field' : `Keep mine in ${mineWanted.size} fields` }}
      </el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
.rows {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr) minmax(0, 1fr);
  max-height: 46vh;
  overflow: auto;
}
.rows > * {
  padding: 8px 6px;
  border-bottom: 1px solid var(--hair-2);
  overflow-wrap: anywhere;
}
.head {
  font-weight: 620;
  font-size: 13.5px;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
  cursor: pointer;
}
.label {
  display: flex;
  align-items: center;
}
input {
  accent-color: var(--ember);
  width: 20px;
  height: 20px;
}
.picked {
  background: var(--ember-tint);
  font-weight: 620;
}
</style>
