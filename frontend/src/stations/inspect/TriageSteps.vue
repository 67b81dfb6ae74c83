<script setup lang="ts">
import { computed, inject } from 'vue'

import LookPicture from '../../looks/LookPicture.vue'
import { say } from '../../settings'
import { stateOf, inspectKey } from './useInspect'

/** A machine that stands: what is done in order, each step under the one before, until it tells. */
const desk = inject(inspectKey)!
const steps = computed(() => desk.answer.value?.triage ?? [])
function back(step: (typeof steps.value)[number]): void {
  if (step.check) desk.uncheck(step.check)
  else desk.tick(step.key, false)
}
</script>

<template>
  <section v-if="steps.length" class="triage" aria-label="It stands: in this order">
    <h4>It stands: in this order</h4>
    <ol>
      <li v-for="s in steps" :key="s.key" :class="{ now: s.answer === null }">
        <template v-if="s.answer === null">
          <div class="look"><LookPicture :look="s.look" /></div>
          <b>{{ say(s.ask) }}</b>
          <p class="small">{{ stateOf(s.state) }}</p>
          <p class="small soft">{{ say(s.how) }}</p>
          <div class="three">
            <template v-if="s.check">
              <el-button @click="desk.check(s.check, true)">Yes</el-button>
              <el-button @click="desk.check(s.check, false)">No</el-button>
              <el-button @click="desk.check(s.check, 'cannot')">Cannot</el-button>
            </template>
            <el-button v-else class="whole" @click="desk.tick(s.key, true)">Done</el-button>
          </div>
        </template>
        <template v-else>
          <span>
            {{ say(s.ask) }}
            <b v-if="s.check">{{ s.answer ? 'Yes' : desk.told.value.checks[s.check] === false ? 'No' : 'Cannot' }}</b>
            <b v-else>✓</b>
          </span>
          <button type="button" class="bare" :aria-label="`Take back: ${s.ask}`" @click="back(s)">×</button>
          <p v-if="s.ends" class="ends">{{ say(s.ends) }}</p>
        </template>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.triage {
  border: 1px solid var(--ink);
  border-radius: 3px;
  padding: 10px 12px 12px;
}
h4 {
  margin: 0;
  font-size: 16px;
}
ol {
  margin: 6px 0 0;
  padding-left: 20px;
  display: grid;
  gap: 8px;
}
li.now {
  display: grid;
  gap: 5px;
}
li b {
  line-height: 1.25;
}
li .bare {
  min-width: 36px;
  min-height: 36px;
  font-size: 20px;
}
.look {
  width: 130px;
}
.ends {
  border-left: 4px solid var(--ember);
  padding-left: 10px;
  font-weight: 560;
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
.whole {
  grid-column: 1 / -1;
}
</style>
