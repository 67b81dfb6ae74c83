<script setup lang="ts">
import { computed, inject, ref, watch } from 'vue'

import { api, unwrap } from '../../../api/client'
import { inSystem, say } from '../../../settings'
import { useAnswer } from '../../../sheet/useAnswer'
import VerdictNotes from '../../../sheet/VerdictNotes.vue'
import WordField from '../../survey/WordField.vue'
import CandidateSlip from '../CandidateSlip.vue'
import { FAMILY_WORDS } from '../../../drives/marks'
import { sizeDeskKey, useSizeChoices } from '../useSizeDesk'

/** Any combination of the stock named by hand: what kills it, and by how much. */
const { record = true } = defineProps<{ record?: boolean }>()
const emit = defineEmits<{ propose: [key: string]; write: [key: string] }>()
const desk = inject(sizeDeskKey)!
const { data: sizes } = useSizeChoices()
const why = computed(() => desk.asked.value.why)
const kinds = computed(() =>
  (sizes.value?.kinds ?? []).map((k) => ({ value: k.name, label: `${k.name} · ${FAMILY_WORDS[k.family]}` })),
)
const stockBody = computed(() =>
  why.value.kind && desk.body.value ? { ...desk.body.value, kind: why.value.kind } : null,
)
const { answer: stock } = useAnswer(stockBody, async (signal) =>
  stockBody.value ? unwrap(api.POST('/api/calc/size/stock', { body: stockBody.value, signal })) : null,
)
/** A kind just chosen starts from what comes nearest to the demands. */
const fresh = ref(false)
watch(stock, (s) => {
  if (!s) return
  const w = why.value
  if (fresh.value) {
    fresh.value = false
    Object.assign(w, s.start)
    return
  }
  w.driver = Math.min(w.driver, s.driver.length - 1)
  w.driven = Math.min(w.driven, s.driven.length - 1)
  w.length = Math.min(w.length, Math.max(0, s.lengths.length - 1))
  w.count = Math.min(w.count, s.counts.length - 1)
})
const body = computed(() =>
  stock.value && desk.body.value && !desk.answer.value?.missing.length ? { ...desk.body.value, ...why.value } : null,
)
const { answer: judged } = useAnswer(body, async (signal) =>
  body.value ? unwrap(api.POST('/api/calc/size/why', { body: body.value, signal })) : null,
)
const found = computed(() => judged.value?.candidates[0] ?? null)
watch(found, (one) => (desk.named.value = one), { immediate: true })
const numbered = (names: string[]) => names.map((label, i) => ({ value: String(i), label }))
type Place = 'driver' | 'driven' | 'length' | 'count'
const place = (key: Place) => String(why.value[key])
const put = (key: Place, value: string) => (desk.asked.value.why[key] = Number(value))
function kind(name: string): void {
  fresh.value = true
  desk.asked.value.why = { kind: name, driver: 0, driven: 0, length: 0, count: 0 }
}
const FIELDS: [Place, string, (s: NonNullable<typeof stock.value>) => string[]][] = [
  ['driver', 'Driver', (s) => s.driver],
  ['driven', 'Driven', (s) => s.driven],
  ['length', 'Length', (s) => s.lengths],
  ['count', 'Belts, width or strands', (s) => s.counts],
]
</script>

<template>
  <div class="station">
    <p class="soft">
      Name any drive that you had in mind: it is held against the same demands, and every one it fails is told with the
      amount.
    </p>
    <p v-if="desk.answer.value?.missing.length" class="ember">
      Still to say, under “Options”: {{ say(desk.answer.value.missing.join('; ')) }}.
    </p>
    <fieldset>
      <legend>The drive you had in mind</legend>
      <WordField
        :model-value="why.kind"
        name="kind"
        label="Belt or chain"
        :options="kinds"
        wide
        @update:model-value="kind($event ?? '')"
      />
      <template v-if="stock">
        <template v-for="[key, label, names] in FIELDS" :key="key">
          <WordField
            v-if="names(stock).length"
            :model-value="place(key)"
            :name="`why_${key}`"
            :label="label"
            :options="numbered(names(stock))"
            :wide="key === 'count'"
            @update:model-value="put(key, $event ?? '0')"
          />
        </template>
      </template>
    </fieldset>
    <div v-if="found" aria-live="polite" class="told">
      <template v-if="found.failures.length">
        <h3>
          Left out:
          {{ found.failures.length === 1 ? 'one demand kills it' : `${found.failures.length} demands kill it` }}
        </h3>
        <VerdictNotes :verdicts="found.failures" />
      </template>
      <h3 v-else>It would do</h3>
      <CandidateSlip
        v-if="!found.failures.length"
        :candidate="found"
        :record="record"
        :beside="desk.asked.value.beside.includes(found.key)"
        @propose="emit('propose', found!.key)"
        @write="emit('write', found!.key)"
        @beside="desk.besides($event)"
        @close="kind('')"
      />
      <p v-else-if="found.sheet?.figures.shaft_pull" class="small soft">
        It would carry
        {{ found.sheet.figures.capacity ? inSystem(found.sheet.figures.capacity) : 'what is not known' }} and pull each
        shaft with {{ inSystem(found.sheet.figures.shaft_pull) }}.
      </p>
    </div>
  </div>
</template>

<style src="../../survey/ask/ask.css" scoped></style>
<style scoped>
.told {
  display: grid;
  gap: 10px;
}
</style>
