<script setup lang="ts">
import { computed, ref, shallowRef, useTemplateRef } from 'vue'

import { api, unwrap } from '../api/client'
import { useMayWrite } from '../api/queries'
import { useWrite } from '../api/useWrite'
import { useRefresh } from '../open/useOpen'
import { when } from '../words'
import { type Arrow, unturned } from './arrows'
import PhotoFrame from './PhotoFrame.vue'
import { type Photo, useChangePhoto } from './usePhotos'

/** A photograph whole: turned, marked with arrows by a finger, named, put to what it shows, put away. */
const { photo, drive } = defineProps<{
  photo: Photo
  drive: { id: string; findings?: { id: string; what: string }[] }
}>()
const emit = defineEmits<{ close: [] }>()
const mayWrite = useMayWrite()
const { change, busy, waiting, problem } = useChangePhoto(() => drive.id)
const open = ref(true)
const turned = ref(photo.turned)
const arrows = shallowRef<readonly Arrow[]>(photo.arrows)
const note = ref(photo.note)
const NEW = 'new'
const finding = ref(photo.finding_id ?? '')
const words = ref('')
const refresh = useRefresh()
const {
  write: say,
  busy: saying,
  problem: sayProblem,
} = useWrite(`photo-saw-${drive.id}`, (body: { words: string }, key, id) =>
  unwrap(
    api.POST('/api/drives/{drive_id}/findings', {
      params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
      body: { ...body, id, sign: 'other', place: '', machine_state: '' },
    }),
  ),
)
const drawing = shallowRef<Arrow | null>(null)
const gone = ref(0)
const seen = computed(() => ({ ...photo, turned: turned.value, arrows: drawing.value ? [...arrows.value, drawing.value] : arrows.value })) // prettier-ignore
const changed = computed(
  () =>
    turned.value !== photo.turned ||
    JSON.stringify(arrows.value) !== JSON.stringify(photo.arrows) ||
    note.value.trim() !== photo.note ||
    finding.value !== (photo.finding_id ?? ''),
)
const findings = computed(() => drive.findings ?? [])
const frame = useTemplateRef<HTMLElement>('frame')
function at(event: PointerEvent): [number, number] {
  const box = frame.value!.querySelector('svg')!.getBoundingClientRect()
  const share = (v: number) => Math.min(1, Math.max(0, v))
  const x = share((event.clientX - box.left) / box.width)
  return unturned(x, share((event.clientY - box.top) / box.height), turned.value)
}
function down(event: PointerEvent): void {
  if (!mayWrite.value || arrows.value.length >= 12) return
  const [x, y] = at(event)
  drawing.value = { x1: x, y1: y, x2: x, y2: y }
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
function move(event: PointerEvent): void {
  if (!drawing.value) return
  const [x2, y2] = at(event)
  drawing.value = { ...drawing.value, x2, y2 }
}
function up(): void {
  const a = drawing.value
  drawing.value = null
  // A mere tap is no arrow.
  if (a && Math.hypot(a.x2 - a.x1, a.y2 - a.y1) > 0.03) arrows.value = [...arrows.value, a]
}
const form = (put_away: boolean, row_version = photo.row_version) => ({
  row_version,
  turned: turned.value as 0,
  arrows: [...arrows.value],
  note: note.value,
  finding_id: finding.value && finding.value !== NEW ? finding.value : null,
  put_away,
})
async function keep(): Promise<void> {
  if (finding.value === NEW) {
    const said = await say({ words: words.value })
    if (!said) return
    finding.value = said.id
    await refresh(drive.id)
  }
  if ((await change(photo.id, form(false))) !== null) emit('close')
}
async function putAway(): Promise<void> {
  gone.value = (await change(photo.id, form(true))) ?? 0
}
async function back(): Promise<void> {
  if ((await change(photo.id, form(false, gone.value))) !== null) gone.value = 0
}
</script>

<template>
  <el-dialog
    v-model="open"
    :title="`Photo, ${photo.who}, ${when(photo.taken_at)}`"
    width="min(860px, 96vw)"
    append-to-body
    align-center
    class="photo-slip"
    @closed="emit('close')"
  >
    <!-- prettier-ignore -->
    <div v-if="gone" class="stack" role="status">
      <p>Archived. It stays in the record, out of sight.</p>
      <p class="row">
        <el-button :loading="busy" @click="back">Restore</el-button>
        <el-button type="primary" @click="open = false">Done</el-button>
      </p>
    </div>
    <div v-else class="stack">
      <div
        ref="frame"
        class="frame"
        :class="{ draws: mayWrite }"
        @pointerdown="down"
        @pointermove="move"
        @pointerup="up"
        @pointercancel="drawing = null"
      >
        <!-- prettier-ignore -->
        <PhotoFrame :photo="seen" size="whole" />
      </div>
      <template v-if="mayWrite">
        <p class="row tools">
          <el-button @click="turned = (turned + 90) % 360">Turn ↻</el-button>
          <el-button :disabled="!arrows.length" @click="arrows = arrows.slice(0, -1)">Take back an arrow</el-button>
          <span class="small soft">Draw a finger across it for an arrow.</span>
        </p>
        <label>
          What it shows
          <select v-model="finding">
            <option value="">the drive</option>
            <option v-for="f in findings" :key="f.id" :value="f.id">{{ f.what }}</option>
            <option :value="NEW">something new, which I say here</option>
            <option v-if="finding && finding !== NEW && !findings.some((f) => f.id === finding)" :value="finding">
              what was found then
            </option>
          </select>
        </label>
        <label v-if="finding === NEW">
          What did you see?
          <el-input v-model="words" maxlength="400" placeholder="burr on the rim" />
        </label>
        <label>Note<el-input v-model="note" maxlength="400" placeholder="groove 2, engine side" /></label>
        <p v-if="waiting" role="status">No connection. Sending again by itself.</p>
        <p v-if="problem ?? sayProblem" class="ember" role="alert">{{ (problem ?? sayProblem)!.detail }}</p>
        <p class="row">
          <el-button type="primary" :loading="busy || saying" :disabled="!changed" @click="keep">Keep</el-button>
          <el-button @click="open = false">{{ changed ? 'Cancel' : 'Close' }}</el-button>
          <el-button :loading="busy" class="away" @click="putAway">Archive</el-button>
        </p>
      </template>
      <p v-else-if="photo.note">{{ photo.note }}</p>
    </div>
  </el-dialog>
</template>

<style scoped>
.frame {
  display: flex;
  justify-content: center;
  background: var(--paper);
  border: 1px solid var(--hair);
  height: min(52vh, 560px);
}
.draws {
  cursor: crosshair;
  touch-action: none;
}
.frame :deep(svg) {
  height: 100%;
  width: auto;
}
label {
  display: grid;
  gap: 4px;
  font-weight: 560;
}
select {
  min-height: 44px;
  width: 100%;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 8px;
  font-size: 16px;
}
.row .el-button {
  margin-left: 0;
}
.away {
  margin-left: auto !important;
}
</style>
