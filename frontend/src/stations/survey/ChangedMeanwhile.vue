<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import type { DriveOut, Problem } from '../../api/client'
import type { Survey } from '../../sheet/form'
import { completedSurvey, type SheetState } from '../../sheet/useSheet'
import { when } from '../../words'
import { clashes, merged } from './clash'

/** Somebody kept a survey in between: both values of each field that differs, and a choice for each. All stays in the log. */
const { problem, drive, state, refresh } = defineProps<{
  problem: Problem
  drive: DriveOut
  state: SheetState
  refresh: () => Promise<void>
}>()
const emit = defineEmits<{ keep: [survey: Survey, version: number]; theirs: [] }>()
const loaded = ref(false)
const mineWanted = ref(new Set<string>())
const theirs = computed(() => completedSurvey(drive.family, JSON.parse(JSON.stringify(drive.survey)) as Survey))
const rows = computed(() => clashes(state.form.value.survey, theirs.value, state.was.value))
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
  emit('keep', merged(state.form.value.survey, theirs.value, mineWanted.value), drive.row_version)
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
      <p v-if="loaded && !rows.length">Both surveys say the same.</p>
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
      <p class="small soft">Whichever you choose, both surveys stay in the log.</p>
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
