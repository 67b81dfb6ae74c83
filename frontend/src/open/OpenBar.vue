<script setup lang="ts">
import { computed, inject, ref, shallowRef } from 'vue'

import type { DriveOut } from '../api/client'
import { useMayWrite } from '../api/queries'
import PhotoButton from '../photos/PhotoButton.vue'
import PhotoSlip from '../photos/PhotoSlip.vue'
import { type Photo, usePhotos, useSendPhoto } from '../photos/usePhotos'
import { say } from '../settings'
import OpenSlip from './OpenSlip.vue'
import SawSlip from './SawSlip.vue'
import { doneKey, mark } from './useOpen'

/** On top of a drive: what is open, the most pressing first, and saying what was seen or done. */
const { drive } = defineProps<{ drive: DriveOut }>()
const mayWrite = useMayWrite()
const listing = ref(false)
const seeing = ref(false)
const done = inject(doneKey)!
const { data: photos } = usePhotos(() => drive.id)
const { send, busy: sending, problem: photoProblem } = useSendPhoto(() => drive.id, `bar-${drive.id}`)
/** The photo that was just taken: kept already, and now one says what it shows. */
const taken = shallowRef<Photo | null>(null)
async function take(file: File): Promise<void> {
  const id = await send(file)
  taken.value = photos.value?.find((p) => p.id === id) ?? null
}
/** What presses most is the core's to say; the rest is counted. */
const pressing = computed(() => ['stop', 'overdue', 'watch'].includes(drive.level))
const first = computed(() => (drive.level === 'quiet' ? '' : drive.why))
const count = computed(() => drive.findings.length + drive.dues.length)
</script>

<template>
  <div class="open no-print">
    <button type="button" class="now" :class="{ pressing, quiet: !first && !count }" @click="listing = true">
      <span v-if="first" class="what">
        <i v-if="pressing" aria-hidden="true">{{ mark(drive.level) }}</i>
        {{ say(first) }}
      </span>
      <span class="more">{{ count ? `${count} open` : 'Nothing open' }}</span>
      <span class="sr">: all that is open</span>
    </button>
    <template v-if="mayWrite">
      <button type="button" class="act" @click="seeing = true">Saw<span class="rest"> something</span></button>
      <button type="button" class="act" @click="done()">Did<span class="rest"> something</span></button>
      <router-link :to="`/drives/${drive.id}/jobs`" class="act jobs">Jobs</router-link>
      <PhotoButton :busy="sending" bare @taken="take" />
    </template>
    <OpenSlip v-if="listing" v-model="listing" :drive="drive" />
    <p v-if="photoProblem" class="ember small" role="alert">{{ photoProblem.detail }}</p>
    <PhotoSlip v-if="taken" :photo="taken" :drive="drive" @close="taken = null" />
    <SawSlip v-if="seeing" v-model="seeing" :drive="drive" />
  </div>
</template>

<style scoped>
.open {
  display: flex;
  gap: 8px;
  align-items: center;
  min-width: 0;
  max-width: 52%;
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
.jobs {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  padding: 0 12px;
  font-size: 14.5px;
  font-stretch: 80%;
  color: inherit;
  text-decoration: none;
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
  button,
  .jobs {
    padding: 0 9px;
  }
  .rest {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .act:has(.rest)::after {
    content: '…';
  }
}
</style>
