<script setup lang="ts">
import { computed, inject, ref } from 'vue'

import type { DriveOut } from '../api/client'
import { useMayWrite } from '../api/queries'
import { say } from '../settings'
import { dueText } from '../words'
import OpenSlip from './OpenSlip.vue'
import SawSlip from './SawSlip.vue'
import { doneKey, mark } from './useOpen'

/** On top of a drive: what is open, the most pressing first, and saying what was seen or done. */
const { drive } = defineProps<{ drive: DriveOut }>()
const mayWrite = useMayWrite()
const listing = ref(false)
const seeing = ref(false)
const done = inject(doneKey)!
const SOON = 7
const items = computed(() => {
  const late = drive.dues.filter((d) => !d.resting && d.days !== null && d.days <= SOON)
  return [
    ...drive.findings.map((f) => ({
      key: f.id,
      mark: mark(f.weight),
      weight: f.weight === 'stop' ? 0 : 2,
      text: f.being_done_by ? `${f.what}: ${f.being_done_by} is on it` : f.what,
    })),
    ...late.map((d) => ({
      key: d.key,
      mark: d.days! <= 0 ? '▲' : '',
      weight: d.days! <= 0 ? 1 : 3,
      text: `${d.what}: ${dueText(d.days!)}`,
    })),
  ].sort((a, b) => a.weight - b.weight)
})
const first = computed(() => items.value[0])
const rest = computed(() => drive.findings.length + drive.dues.length - (first.value ? 1 : 0))
</script>

<template>
  <div class="open no-print">
    <button
      v-if="first || rest"
      type="button"
      class="now"
      :class="{ pressing: first && first.weight < 3 }"
      @click="listing = true"
    >
      <span v-if="first" class="what">
        <i v-if="first.mark" aria-hidden="true">{{ first.mark }}</i>
        {{ say(first.text) }}
      </span>
      <span v-if="rest" class="more">{{ first ? `+${rest}` : `${rest} due later` }}</span>
      <span class="sr">: all that is open</span>
    </button>
    <button v-else type="button" class="now quiet" @click="listing = true">Nothing open</button>
    <template v-if="mayWrite">
      <button type="button" class="act" @click="seeing = true">Saw something</button>
      <button type="button" class="act" @click="done()">Did something</button>
    </template>
    <OpenSlip v-if="listing" v-model="listing" :drive="drive" />
    <SawSlip v-if="seeing" v-model="seeing" :drive="drive" />
  </div>
</template>

<style scoped>
.open {
  display: flex;
  gap: 8px;
  align-items: center;
  min-width: 0;
  max-width: 60%;
}
button {
  min-height: 44px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: none;
  padding: 0 12px;
  font-size: 14.5px;
  font-stretch: 80%;
  cursor: pointer;
  white-space: nowrap;
}
button:hover {
  border-color: var(--ink-2);
}
.now {
  display: flex;
  gap: 8px;
  align-items: center;
  min-width: 0;
}
.what {
  overflow: hidden;
  text-overflow: ellipsis;
}
.pressing {
  border-color: var(--ember);
}
.what i {
  font-style: normal;
  font-size: 10px;
  color: var(--ember);
}
.more {
  color: var(--ink-2);
}
.quiet {
  color: var(--ink-2);
}
.act {
  background: var(--sheet);
  font-weight: 600;
}
@media (max-width: 760px) {
  .open {
    max-width: none;
    width: 100%;
    padding: 0 0 4px 8px;
  }
  .now {
    flex: 1;
  }
  button {
    padding: 0 9px;
  }
}
</style>
