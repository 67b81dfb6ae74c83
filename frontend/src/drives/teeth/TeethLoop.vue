<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'

import { api, unwrap } from '../../api/client'
import { useFamilies } from '../../api/queries'
import type { ToothedForm } from '../../sheet/form'
import MeasureField from '../../sheet/MeasureField.vue'
import WordField from '../../stations/survey/WordField.vue'

/** A toothed belt or a chain of one stage on many wheels. */
const fitted = defineModel<ToothedForm>({ required: true })
const { prefix } = defineProps<{ prefix: string }>()
const { data: families } = useFamilies()
const { data: lists } = useQuery({
  queryKey: ['toothed lists'],
  queryFn: () => unwrap(api.GET('/api/calc/toothed-lists')),
  staleTime: Infinity,
})
const family = computed(() => fitted.value.family ?? '')
const chain = computed(() => families.value?.families.find((f) => f.key === family.value)?.runs === 'chain')
const names = computed(() => (lists.value?.names[family.value] ?? []).map((n) => ({ value: n, label: n })))
const words = computed(() => fitted.value.drive)
</script>

<template>
  <WordField v-model="words.name" :name="`${prefix}name`" :label="chain ? 'Chain' : 'Profile'" :options="names" />
  <WordField
    v-if="chain"
    v-model="words.strands"
    :name="`${prefix}strands`"
    label="Strands side by side"
    placeholder="1"
  />
  <MeasureField
    v-else
    v-model="fitted.quantities.belt_width!"
    :name="`${prefix}belt_width`"
    field="belt_width"
    label="Width"
  />
  <WordField
    v-model="words.count"
    :name="`${prefix}count`"
    :label="chain ? 'Links on it' : 'Teeth on the belt'"
    placeholder="if counted"
  />
</template>
