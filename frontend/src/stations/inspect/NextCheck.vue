<script setup lang="ts">
import { computed, inject, ref, watch } from 'vue'

import LookPicture from '../../looks/LookPicture.vue'
import { say } from '../../settings'
import { inspectKey, stateOf } from './useInspect'

/** The next check: what to do, in which state of the machine, and what came of it. */
const desk = inject(inspectKey)!
const next = computed(() => desk.answer.value?.diagnosis.next_check)
const number = ref('')
watch(next, () => (number.value = ''))
const parsed = computed(() => {
  const value = Number(number.value.replace(',', '.'))
  return number.value.trim() && Number.isFinite(value) ? value : null
})
</script>

<template>
  <section v-if="next" class="next" aria-label="Next check">
    <span class="small soft">Look next, about {{ next.minutes }} min</span>
    <div class="what">
      <div v-if="next.look" class="look"><LookPicture :look="next.look" /></div>
      <b>{{ say(next.question) }}</b>
    </div>
    <p class="small">{{ stateOf(next.state) }}</p>
    <p class="small soft">{{ say(next.why) }}</p>
    <div class="three">
      <el-button @click="desk.check(next.key, true)">Yes</el-button>
      <el-button @click="desk.check(next.key, false)">No</el-button>
      <el-button @click="desk.check(next.key, 'cannot')">Cannot</el-button>
    </div>
    <div v-if="next.unit" class="row">
      <span class="small">or as read</span>
      <input v-model="number" inputmode="decimal" maxlength="12" :aria-label="`${next.question} In ${next.unit}`" />
      <span class="small">{{ next.unit }}</span>
      <el-button :disabled="parsed === null" @click="desk.check(next.key, parsed!)">That is it</el-button>
    </div>
    <p v-if="next.unit && number.trim() && parsed === null" class="small ember" role="alert">
      Write the number alone, such as 85.
    </p>
  </section>
</template>

<style scoped>
.next {
  border: 1px solid var(--ink);
  border-radius: 3px;
  padding: 10px 12px 12px;
  display: grid;
  gap: 5px;
}

.what {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 12px;
  align-items: center;
}
.look {
  width: 104px;
}
b {
  font-size: 16px;
  line-height: 1.25;
}
.three {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 8px;
}
.three :deep(.el-button) {
  margin: 0;
  min-height: 48px;
}
input {
  min-height: 44px;
  width: 90px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  font-size: 17px;
  padding: 0 10px;
}
</style>
