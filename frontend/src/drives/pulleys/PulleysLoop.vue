<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'

import { api, unwrap } from '../../api/client'
import { inSystem } from '../../settings'
import type { FlatForm } from '../../sheet/form'
import MeasureField from '../../sheet/MeasureField.vue'
import WordField from '../../stations/survey/WordField.vue'

/** A flat belt of one stage on many wheels. */
const fitted = defineModel<FlatForm>({ required: true })
const { prefix } = defineProps<{ prefix: string }>()
const { data: lists } = useQuery({
  queryKey: ['flat lists'],
  queryFn: () => unwrap(api.GET('/api/calc/flat-lists')),
  staleTime: Infinity,
})
const kinds = computed(() => [
  { value: '', label: 'not known' },
  ...(lists.value?.belts ?? []).map((b) => ({ value: b.name, label: `${b.name}, ${inSystem(b.thickness)}` })),
])
</script>

<template>
  <WordField v-model="fitted.belt" :name="`${prefix}belt`" label="Kind" :options="kinds" wide />
  <MeasureField
    v-model="fitted.quantities.flat_width!"
    :name="`${prefix}flat_width`"
    field="belt_width"
    label="Width"
  />
  <MeasureField
    v-model="fitted.quantities.flat_thickness!"
    :name="`${prefix}flat_thickness`"
    field="flat_thickness"
    label="Thickness"
    hint="if it differs"
  />
</template>
