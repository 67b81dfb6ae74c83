<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, inject, ref } from 'vue'

import { api, type DriveOut, unwrap } from '../../api/client'
import { useFound, useMayWrite } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import { trimmed } from '../../sheet/form'
import { useAnswer } from '../../sheet/useAnswer'
import { sheetKey } from '../../sheet/useSheet'
import { when } from '../../words'
import SlipPaper from './ask/SlipPaper.vue'

/** The counter slip of a toothed belt, a chain or a flat belt: it follows from the survey. */
const { drive } = defineProps<{ drive: DriveOut }>()
const sheet = inject(sheetKey)!
const client = useQueryClient()
const mayWrite = useMayWrite()
const { data: found } = useFound(() => drive.id)
const open = ref(false)
const asked = computed(() =>
  trimmed({
    family: drive.family,
    belt: '',
    survey: sheet.form.value.survey,
    joined: false,
    slack_clutch: false,
    part_number: drive.part_number,
  }),
)
const { answer, refused } = useAnswer(asked, (signal) =>
  unwrap(api.POST('/api/calc/counter-slip', { body: asked.value, signal })),
)
const slip = computed(() => (refused.value ? null : answer.value?.slip))
const kept = ref('')
const { write, busy, problem } = useWrite(`slip-${drive.id}`, (body: { asked: typeof asked.value }, key, id) =>
  unwrap(
    api.POST('/api/drives/{drive_id}/slips', {
      params: { path: { drive_id: drive.id }, header: { 'Idempotency-Key': key } },
      body: { ...body, id },
    }),
  ),
)
async function keep(): Promise<void> {
  if (!(await write({ asked: asked.value }))) return
  kept.value = `Kept on the drive: ask for ${slip.value?.headline}.`
  await client.invalidateQueries({ queryKey: ['found', drive.id] })
  await client.invalidateQueries({ queryKey: ['log', drive.id] })
}
</script>

<template>
  <section class="counter">
    <el-button :aria-expanded="open" @click="open = !open">{{ open ? 'Fold the slip' : 'Counter slip' }}</el-button>
    <template v-if="open">
      <SlipPaper v-if="slip" :slip="slip" />
      <p v-else class="soft">{{ refused?.problem.detail }}</p>
      <p v-if="slip && mayWrite">
        <el-button :loading="busy" @click="keep">Keep this slip on the drive</el-button>
        <span class="small" role="status">{{ problem?.detail ?? kept }}</span>
      </p>
      <p v-if="found?.slip">
        <span class="small soft">Last kept: {{ found.slip.designation }}, {{ when(found.slip.made_at) }}.</span>
        <a class="pdf" :href="`/api/slips/${found.slip.id}/pdf`" target="_blank" rel="noopener">Open as PDF to print</a>
      </p>
    </template>
  </section>
</template>

<style scoped>
.counter {
  padding: 0 18px 14px;
  display: grid;
  gap: 10px;
}
.counter p {
  margin: 0;
}
.pdf {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  font-weight: 600;
}
</style>
