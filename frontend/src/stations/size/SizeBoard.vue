<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, inject } from 'vue'

import { say } from '../../settings'
import type { SizeAsk } from '../asks'
import DriveList from './DriveList.vue'
import DrivePlot from './DrivePlot.vue'
import ScaleRow from './ScaleRow.vue'
import { SIZING } from '../asks'
import { sheetKey } from '../../sheet/useSheet'
import { sizeDeskKey, useSizeChoices } from './useSizeDesk'

/** Size's board: the plot over the list, linked both ways; or the drives side by side to one scale. */
defineOptions({ inheritAttrs: false })
const { ask } = defineProps<{ ask: SizeAsk }>()
// On the bench there is no drive that stands.
const sheet = inject(sheetKey, null)
const standing = computed(() => sheet?.lastDrawn.value ?? null)
const sizing = computed(() => SIZING.includes(ask))
const desk = inject(sizeDeskKey)!
const { data: choices } = useSizeChoices()
const narrow = useMediaQuery('(max-width: 760px)')
const drawn = computed(() => {
  const named = desk.named.value
  const shown = ask === 'why' ? (named ? [named] : []) : desk.candidates.value
  const found = shown
    .filter((c) => c.sheet?.drawing)
    .map((c) => ({ key: c.key, name: say(c.name), drawing: c.sheet!.drawing! }))
  return standing.value && ask !== 'choose'
    ? [{ key: 'stands', name: 'as it stands', drawing: standing.value }, ...found]
    : found
})
function axis(which: 'x' | 'y', key: string): void {
  desk.asked.value.size[which] = key
}
</script>

<template>
  <slot v-if="!sizing" />
  <div v-else-if="ask !== 'choose'" class="sides">
    <ScaleRow :drives="drawn">
      <p class="teach">
        {{
          ask === 'why'
            ? 'Name a drive in the panel: it is drawn here, to one scale with the one that stands.'
            : 'Put up to four drives side by side with + in the list: they are drawn here to one scale.'
        }}
      </p>
    </ScaleRow>
  </div>
  <div v-else class="size" :class="{ busy: desk.busy.value, drawn: drawn.length }">
    <template v-if="desk.answer.value?.dots.length">
      <DrivePlot
        :answer="desk.answer.value"
        :chosen="desk.asked.value.chosen"
        :beside="desk.asked.value.beside"
        :axes="choices?.axes ?? {}"
        @choose="desk.choose"
        @axis="axis"
      />
      <ScaleRow v-if="drawn.length && !narrow" :drives="drawn" class="one" />
      <div v-if="!narrow" class="list">
        <DriveList
          :answer="desk.answer.value"
          :chosen="desk.asked.value.chosen"
          :beside="desk.asked.value.beside"
          @choose="desk.choose"
          @beside="desk.besides"
        />
      </div>
    </template>
    <p
      v-else-if="desk.answer.value && !desk.answer.value.missing.length && !desk.answer.value.problems.length"
      class="teach"
    >
      Nothing in the stock does all of that. The panel says what ruled it out, and what relaxing each limit would allow.
    </p>
    <p v-else class="teach">
      Say what it must do: power, speeds, the room for the centres and the machine. Every stock drive of every family
      that would do then stands here, to compare.
    </p>
  </div>
</template>

<style scoped>
.size {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: minmax(0, 46%) minmax(0, 1fr);
  min-height: 0;
}
.size.drawn {
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
}
.one {
  border-left: 1px solid var(--hair-2);
}
.list {
  grid-column: 1 / -1;
  overflow-y: auto;
  border-top: 1px solid var(--hair);
}
.busy {
  opacity: 0.6;
}
.sides {
  display: grid;
  min-height: 0;
}
.teach {
  grid-column: 1 / -1;
  align-self: center;
  justify-self: center;
  max-width: 420px;
  padding: 24px;
  color: var(--ink-2);
  text-align: center;
}
@media (max-width: 760px) {
  .size,
  .size.drawn {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(0, 1fr);
  }
}
</style>
