<script setup lang="ts">
import { computed } from 'vue'

import type { DriveOut } from '../../api/client'
import { useMayWrite } from '../../api/queries'
import PhotoButton from '../../photos/PhotoButton.vue'
import PhotoStrip from '../../photos/PhotoStrip.vue'
import { usePhotos, useSendPhoto } from '../../photos/usePhotos'

/** Every photograph of the drive. */
const { drive } = defineProps<{ drive: DriveOut }>()
const { data, error, isPending, refetch } = usePhotos(() => drive.id)
const mayWrite = useMayWrite()
const { send, busy, waiting, problem } = useSendPhoto(() => drive.id, `all-${drive.id}`)
const count = computed(() => data.value?.length ?? 0)
</script>

<template>
  <div class="station">
    <h3>{{ count ? `${count} photo${count === 1 ? '' : 's'}` : data ? 'No photo yet' : 'Photos' }}</h3>
    <p v-if="error" role="alert">
      They could not be read. <button type="button" class="bare" @click="refetch()"><u>Try again</u></button>
    </p>
    <p v-else-if="isPending" class="soft">Reading…</p>
    <p class="small soft">
      From outside the guard while it runs; inside it only locked out. Where it was taken is not kept with it.
    </p>
    <p v-if="mayWrite"><PhotoButton :busy="busy" label="Take or pick a photo" @taken="send($event)" /></p>
    <p v-if="waiting" role="status">No connection. It is sent again by itself; keep this page open.</p>
    <p v-if="problem" class="ember" role="alert">{{ problem.detail }}</p>
    <PhotoStrip :drive="drive" />
  </div>
</template>

<style scoped>
.station {
  padding: 16px 18px 18px;
  display: grid;
  gap: 12px;
  align-content: start;
}
h3 {
  font-size: 20px;
}
</style>
