<script setup lang="ts">
import { provide, ref, toRef } from 'vue'

import type { Choices } from '../api/client'
import SectionDrawing from '../sheet/SectionDrawing.vue'
import { focusKey } from '../sheet/useSheet'
import CandidateLadder from '../stations/survey/ask/CandidateLadder.vue'
import WhichBelt from '../stations/survey/ask/WhichBelt.vue'
import { findKey, useFind } from '../stations/survey/useFind'

const { choices, narrow } = defineProps<{ choices: Choices; narrow: boolean }>()
const find = useFind(
  'bench',
  toRef(() => choices),
  ref(null),
)
const focus = ref('')
provide(findKey, find)
provide(focusKey, focus)
const choose = (name: string) => (find.chosen.value = name)
</script>

<template>
  <div class="work">
    <section class="board" aria-label="Drawing">
      <SectionDrawing :identified="find.identified.answer.value" :form="find.form.value" :focus="focus" />
      <div v-if="!narrow" class="under">
        <CandidateLadder
          v-if="find.identified.answer.value && find.anything.value"
          :identified="find.identified.answer.value"
          :chosen="find.chosen.value"
          @choose="choose"
        />
        <p v-else class="soft">Type any one measurement: the candidates stand here, likeliest first.</p>
      </div>
    </section>
    <section class="panel" data-panel aria-label="Which belt?">
      <WhichBelt :choices="choices" :ladder="narrow" @choose="choose">
        <p v-if="find.anything.value"><el-button @click="find.clear()">Clear</el-button></p>
      </WhichBelt>
    </section>
  </div>
</template>

<style src="../sheet/work.css" scoped></style>
<style scoped>
.under {
  border-top: 1px solid var(--hair);
  padding: 10px 18px 14px;
  overflow-y: auto;
  max-height: min(46vh, 400px);
}
@media (max-width: 760px) {
  .board {
    grid-template-rows: 196px;
  }
}
</style>
