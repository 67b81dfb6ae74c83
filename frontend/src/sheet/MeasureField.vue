<script setup lang="ts">
import { computed, inject, ref, watch } from 'vue'

import { useChoices } from '../api/queries'
import type { Entry, Origin } from '../api/client'
import { say, settings } from '../settings'
import { focusNext } from './entries'
import { rememberUnit, shownUnit, usualUnit } from './form'
import OriginMark from './OriginMark.vue'
import { answersKey, focusKey } from './useSheet'

/** A measure field: takes what people write, shows what was understood in both systems, keeps the unit per field. */
const entry = defineModel<Entry>({ required: true })
const {
  name,
  field = undefined,
  label,
  hint = '',
  tight = false,
} = defineProps<{ name: string; field?: string; label: string; hint?: string; tight?: boolean }>()

const answers = inject(answersKey)!
const focus = inject(focusKey, ref(''))
const { data: choices } = useChoices()
const kind = computed(() => field ?? name)
const spec = computed(() => choices.value?.fields[kind.value])
const unit = computed(() => (choices.value ? shownUnit(choices.value, kind.value, entry.value) : ''))
type Note = ReturnType<typeof answers.note>
const alike = (a: Note, b: Note) =>
  a?.us === b?.us && a?.si === b?.si && a?.unit === b?.unit && a?.offer?.unit === b?.offer?.unit
// The same words again are the same note: a long sheet does not redraw every field at each answer.
const note = computed<Note>((before) => {
  const now = entry.value.text ? answers.note(name) : undefined
  return before && alike(before, now) ? before : now
})
const refused = computed(() => answers.problem(name))
const problem = computed(() => refused.value?.sentence)
const offer = computed(() => note.value?.offer ?? refused.value?.offer)
const origin = computed<Origin>(() => entry.value.origin ?? (spec.value?.origin as Origin | undefined) ?? 'measured')
const ORIGINS: Origin[] = ['measured', 'nameplate', 'chosen', 'assumed']
const coarse = matchMedia('(pointer: coarse)').matches
const before = ref('')
const input = ref<HTMLInputElement>()

watch(
  () => settings.value.system,
  () => {
    if (!entry.value.text && choices.value) entry.value = { ...entry.value, unit: usualUnit(choices.value, kind.value) }
  },
)

function type(text: string): void {
  entry.value = { ...entry.value, text, unit: entry.value.unit || unit.value }
}
function setUnit(chosen: string): void {
  rememberUnit(kind.value, chosen)
  entry.value = { ...entry.value, unit: chosen }
}
watch(note, () => here === 'left' && takeWritten())
/** The same number in another unit, in place of one that was written out. */
function takeOffer(offered: string): void {
  const text = (entry.value.text ?? '').replace(/\s*[^\d\s/.,]+$/, '')
  rememberUnit(kind.value, offered)
  // In one write: what is written first is only there to be read once the page has been drawn again.
  entry.value = { ...entry.value, text, unit: offered }
}
function entered(): void {
  here = 'inside'
  before.value = entry.value.text ?? ''
  focus.value = name
}
let here: 'not yet' | 'inside' | 'left' = 'not yet'
function left(): void {
  here = 'left'
  takeWritten()
}
/** A unit written out becomes the field's own; the server's word for it may come after the field is left. */
function takeWritten(): void {
  const written = note.value?.unit
  if (written && written !== unit.value) setUnit(written)
}
function takeBack(event: KeyboardEvent): void {
  if (entry.value.text === before.value) return
  event.stopPropagation()
  type(before.value)
}
function press(text: string): void {
  type(((entry.value.text ?? '') + text).replace(/ {2,}/g, ' '))
  input.value?.focus()
}
/** A keypad of digits has no minus. */
function turn(): void {
  const text = entry.value.text ?? ''
  type(text.startsWith('-') ? text.slice(1) : `-${text}`)
  input.value?.focus()
}
const FRACTIONS = [' 1/8', ' 1/4', ' 3/8', ' 1/2', ' 5/8', ' 3/4', ' 7/8']
</script>

<template>
  <div class="field" :class="{ wrong: problem }">
    <label :for="`f-${name}`">
      <span>{{ say(label) }}</span>
      <span v-if="hint" class="soft small">{{ say(hint) }}</span>
    </label>
    <div class="box">
      <input
        :id="`f-${name}`"
        ref="input"
        data-entry
        :value="entry.text"
        :inputmode="coarse ? 'decimal' : 'text'"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        enterkeyhint="next"
        :placeholder="'–'"
        :aria-invalid="problem ? 'true' : undefined"
        :aria-describedby="`d-${name}`"
        @input="type(($event.target as HTMLInputElement).value)"
        @focus="entered"
        @blur="left"
        @keydown.enter.prevent="focusNext($event.target)"
        @keydown.esc="takeBack"
      />
      <select
        v-if="(spec?.units.length ?? 0) > 1"
        class="unit"
        :value="unit"
        :aria-label="`Unit of ${say(label)}`"
        @change="setUnit(($event.target as HTMLSelectElement).value)"
      >
        <option v-for="u in spec?.units" :key="u" :value="u">{{ u }}</option>
      </select>
      <span v-else class="unit only">{{ unit }}</span>
      <span v-if="entry.text" class="origin">
        <OriginMark :origin="origin" />
        <select
          :value="origin"
          :aria-label="`Where ${say(label)} comes from`"
          @change="entry = { ...entry, origin: ($event.target as HTMLSelectElement).value as Origin }"
        >
          <option v-for="o in ORIGINS" :key="o" :value="o">{{ o }}</option>
        </select>
      </span>
    </div>
    <div v-if="coarse && focus === name && spec?.signed" class="keys" aria-hidden="true">
      <button type="button" tabindex="-1" class="sign" @pointerdown.prevent="turn">
        {{ entry.text?.startsWith('-') ? '− to +' : '+ to −' }}
      </button>
    </div>
    <div v-else-if="coarse && focus === name && spec?.us === 'in'" class="keys" aria-hidden="true">
      <button v-for="f in FRACTIONS" :key="f" type="button" tabindex="-1" @pointerdown.prevent="press(f)">
        {{ f.trim() }}
      </button>
    </div>
    <div :id="`d-${name}`" class="under small" :class="{ tight }" aria-live="polite">
      <span v-if="problem" class="problem">{{ say(problem) }}</span>
      <template v-else-if="note && !tight">
        <span class="soft">{{ note.us === note.si ? note.us : `${note.us} · ${note.si}` }}</span>
      </template>
      <button v-if="offer" type="button" class="bare offer" @click="takeOffer(offer.unit)">{{ offer.sentence }}</button>
    </div>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  gap: 3px;
  min-width: 0;
}
label {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  font-size: 13.5px;
  font-weight: 560;
}
.box {
  display: flex;
  align-items: stretch;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  min-height: 44px;
}
.box:focus-within {
  border-color: var(--focus);
  box-shadow: 0 0 0 1px var(--focus);
}
.wrong .box {
  border-color: var(--ember);
  box-shadow: inset 3px 0 0 var(--ember);
}
input {
  flex: 1 1 40px;
  min-width: 0;
  width: 40px;
  border: 0;
  background: none;
  padding: 0 10px;
  font: inherit;
  font-size: 18px;
  font-weight: 600;
  font-stretch: 80%;
  color: var(--ink);
  font-variant-numeric: tabular-nums;
}
input:focus {
  outline: none;
}
select {
  border: 0;
  background: transparent;
  color: var(--ink-2);
  font: inherit;
  cursor: pointer;
}
.unit {
  padding: 0 4px;
  font-size: 14px;
}
.only {
  align-self: center;
  padding-right: 10px;
  color: var(--ink-2);
}
.origin {
  position: relative;
  display: grid;
  place-items: center;
  width: 34px;
  border-left: 1px solid var(--hair-2);
}
.origin select {
  position: absolute;
  inset: 0;
  opacity: 0;
  width: 100%;
}
.origin:focus-within {
  outline: 2px solid var(--focus);
}
select option {
  color: var(--ink);
  background: var(--sheet);
}
.under {
  min-height: 1.3em;
  line-height: 1.3;
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  font-size: 12.5px;
}

.tight {
  min-height: 0;
}
.problem {
  color: var(--ember);
  font-weight: 560;
}
.offer {
  color: var(--quench);
  text-decoration: underline;
  font-weight: 600;
}
.keys {
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  gap: 3px;
}
.keys .sign {
  grid-column: span 3;
}
.keys button {
  min-height: 42px;
  padding: 0;
  font-size: 14px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--paper);
}
</style>
