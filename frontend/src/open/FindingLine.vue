<script setup lang="ts">
import { ref } from 'vue'

import { api, unwrap } from '../api/client'
import type { components } from '../api/schema'
import { useWrite } from '../api/useWrite'
import PhotoButton from '../photos/PhotoButton.vue'
import PhotoStrip from '../photos/PhotoStrip.vue'
import { useSendPhoto } from '../photos/usePhotos'
import { say } from '../settings'
import { ago } from '../words'
import { mark, STATES, useRefresh } from './useOpen'

/** An open finding: who saw it, what is being done, and closing it with what was done. */
const { finding, drive, mayWrite } = defineProps<{
  finding: components['schemas']['FindingOut']
  drive: { id: string; findings?: { id: string; what: string }[] }
  mayWrite: boolean
}>()
const emit = defineEmits<{ go: [] }>()
const refresh = useRefresh()
const closing = ref(false)
const { send, busy: sending, waiting, problem: photoProblem } = useSendPhoto(() => drive.id, finding.id)
const why = ref('')
type Body = { row_version: number; state: 'open' | 'being done' | 'closed'; why: string }
const { write, busy, problem } = useWrite(`finding-${finding.id}`, (body: Body, key) =>
  unwrap(
    api.POST('/api/findings/{finding_id}', {
      params: { path: { finding_id: finding.id }, header: { 'Idempotency-Key': key } },
      body: { ...body, how: 'said' },
    }),
  ),
)
async function become(state: Body['state']): Promise<void> {
  const done = await write({ row_version: finding.row_version, state, why: state === 'closed' ? why.value : '' })
  await (done || problem.value?.status === 409 ? refresh(drive.id) : undefined)
}
</script>

<template>
  <li class="line">
    <p>
      <i class="ember" aria-hidden="true">{{ mark(finding.weight) }}</i>
      <b>{{ say(finding.what) }}</b>
    </p>
    <p v-if="finding.words && finding.words !== finding.what" class="words">“{{ finding.words }}”</p>
    <p class="small soft">
      {{ finding.by_core ? `worked out from what ${finding.who} kept` : finding.who }}, {{ ago(finding.found_at)
      }}{{ finding.machine_state ? `; ${STATES[finding.machine_state] ?? finding.machine_state}` : ''
      }}{{ finding.place ? `; ${say(finding.place)}` : '' }}
      <template v-if="finding.being_done_by">
        · <b>{{ finding.being_done_by }} is on it</b></template
      >
    </p>
    <PhotoStrip :drive="drive" :finding-id="finding.id" />
    <p v-if="finding.by_core" class="small soft">A newer reading or survey that finds it in order closes it.</p>
    <p class="row">
      <router-link :to="`/drives/${drive.id}/${finding.page}`" class="go" @click="emit('go')">
        Look into it at {{ finding.page.split('/')[0] }}
      </router-link>
      <template v-if="mayWrite && !closing">
        <PhotoButton :busy="sending" @taken="send($event, finding.id)" />
        <el-button v-if="!finding.being_done_by" :loading="busy" @click="become('being done')">I am on it</el-button>
        <el-button v-if="!finding.by_core" @click="closing = true">Close…</el-button>
      </template>
    </p>
    <form v-if="closing" class="stack" @submit.prevent="become('closed')">
      <label>
        What was done, or why is it nothing?
        <el-input v-model="why" type="textarea" :rows="2" maxlength="400" />
      </label>
      <p class="row">
        <el-button type="primary" native-type="submit" :loading="busy">Close it</el-button>
        <el-button @click="closing = false">Cancel</el-button>
      </p>
    </form>
    <p v-if="waiting" role="status">No connection. The photo is sent again by itself.</p>
    <p v-if="problem ?? photoProblem" class="ember" role="alert">{{ (problem ?? photoProblem)!.detail }}</p>
  </li>
</template>

<style src="./line.css" scoped></style>
