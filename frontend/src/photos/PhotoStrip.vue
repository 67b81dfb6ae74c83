<script setup lang="ts">
import { computed, shallowRef } from 'vue'

import { when } from '../words'
import PhotoFrame from './PhotoFrame.vue'
import PhotoSlip from './PhotoSlip.vue'
import { type Photo, usePhotos } from './usePhotos'

/** The photographs of a finding, or all of a drive, small; a tap shows one whole. */
const { drive, findingId = null } = defineProps<{
  drive: { id: string; findings?: { id: string; what: string }[] }
  findingId?: string | null
}>()
const { data } = usePhotos(() => drive.id)
const photos = computed(() => (data.value ?? []).filter((p) => findingId === null || p.finding_id === findingId))
/** Held as it was when it was tapped: put away, it leaves the list and may still be brought back. */
const shown = shallowRef<Photo | null>(null)
</script>

<template>
  <ul v-if="photos.length" class="strip" aria-label="Photos">
    <li v-for="p in photos" :key="p.id">
      <button
        type="button"
        :aria-label="`Photo by ${p.who}, ${when(p.taken_at)}${p.note ? `: ${p.note}` : ''}`"
        @click="shown = p"
      >
        <PhotoFrame :photo="p" />
      </button>
      <span v-if="findingId === null" class="small soft">{{ p.note || when(p.taken_at) }}</span>
    </li>
  </ul>
  <PhotoSlip v-if="shown" :photo="shown" :drive="drive" @close="shown = null" />
</template>

<style scoped>
.strip {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
li {
  display: grid;
  gap: 2px;
  max-width: 150px;
}
button {
  height: 96px;
  padding: 0;
  border: 1px solid var(--hair);
  background: var(--sheet);
  cursor: pointer;
}
button :deep(svg) {
  height: 94px;
  width: auto;
}
</style>
