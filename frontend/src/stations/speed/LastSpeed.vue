<script setup lang="ts">
import { computed, inject } from 'vue'

import type { DriveOut, Entry } from '../../api/client'
import { sheetKey } from '../../sheet/useSheet'
import { when } from '../../words'

/** The speeds on the record, to reckon with when none are typed. */
const { drive } = defineProps<{ drive: DriveOut }>()
const state = inject(sheetKey)!
const t = computed(() => state.form.value.tachometer)
const last = computed(() => (t.value.tach_driven?.text ? null : drive.last_speed))
const told = (e: Entry | null) => (e ? `${e.text} ${/[a-z]/i.test(e.text ?? '') ? '' : e.unit}`.trim() : '')
function use(): void {
  if (!last.value) return
  if (last.value.tach_driver) t.value.tach_driver = { ...last.value.tach_driver }
  t.value.tach_driven = { ...last.value.tach_driven }
}
</script>

<template>
  <p v-if="last" class="small">
    On the record, {{ when(last.taken_at) }}:
    <template v-if="last.tach_driver">driver {{ told(last.tach_driver) }}, </template>driven
    {{ told(last.tach_driven) }}.
    <button type="button" class="bare" @click="use"><u>Reckon with these</u></button>
  </p>
</template>
