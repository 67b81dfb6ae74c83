<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'

import { useChoices, useDrive } from '../api/queries'
import { stationOf } from '../stations/registry'
import { freshenDraft } from './draft'
import SheetBody from './SheetBody.vue'

const route = useRoute()
const id = computed(() => String(route.params.id))
const station = computed(() => stationOf(String(route.params.station)))
const ask = computed(() => String(route.params.ask || station.value.asks[0]))
const { data: drive, error, refetch } = useDrive(id)
const { data: choices, error: choicesError, refetch: refetchChoices } = useChoices()
const trouble = computed(() => error.value ?? choicesError.value)
/** The drive whose draft on this device is one of today. */
const ready = ref('')
watch(
  drive,
  async (now) => {
    if (!now || ready.value === now.id) return
    // What cannot be read any more is no reason to keep the drive shut.
    await freshenDraft(now.id, now.family).catch(() => undefined)
    ready.value = now.id
  },
  { immediate: true },
)
</script>

<template>
  <div v-if="trouble && !drive" class="gap stack" role="alert">
    <h1>This drive could not be opened</h1>
    <p>{{ trouble.message }}</p>
    <p class="row">
      <el-button @click="(refetch(), refetchChoices())">Try again</el-button>
      <router-link to="/floor">Back to the floor</router-link>
    </p>
  </div>
  <SheetBody
    v-else-if="drive && choices && ready === drive.id"
    :key="`${drive.id}-${drive.family}`"
    :drive="drive"
    :choices="choices"
    :station="station"
    :ask="ask"
  />
  <p v-else class="gap soft">Opening the sheet…</p>
</template>

<style scoped>
.gap {
  padding: 28px;
}
</style>
