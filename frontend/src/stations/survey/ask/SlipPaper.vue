<script setup lang="ts">
import type { Slip } from '../../../api/client'
import { say } from '../../../settings'

/** The slip as it is taken to the counter. */
const { slip } = defineProps<{ slip: Slip }>()
</script>

<template>
  <article class="paper" aria-label="Counter slip">
    <h2>{{ slip.headline }}</h2>
    <p class="count">{{ slip.count }}</p>
    <dl>
      <template v-if="slip.names.length">
        <dt>or by these names</dt>
        <dd v-for="n in slip.names" :key="n" class="big">{{ n }}</dd>
      </template>
      <template v-if="slip.machine_part">
        <dt>the machine's own part number</dt>
        <dd class="big">{{ slip.machine_part }}</dd>
      </template>
      <dt>section</dt>
      <dd v-for="n in slip.section" :key="n">{{ n }}</dd>
      <dt>length</dt>
      <dd v-for="n in slip.length" :key="n">{{ n }}</dd>
      <template v-if="slip.grade.length">
        <dt>grade</dt>
        <dd v-for="n in slip.grade" :key="n">{{ n }}</dd>
      </template>
      <template v-if="slip.refuse.length">
        <dt class="no">do not accept</dt>
        <dd v-for="n in slip.refuse" :key="n">
          <span aria-hidden="true" class="ember">✕</span>
          {{ say(n) }}
        </dd>
      </template>
      <dt>check first</dt>
      <dd v-for="n in slip.check_first" :key="n">{{ say(n) }}</dd>
    </dl>
  </article>
</template>

<style scoped>
.paper {
  border: 1px solid var(--ink-2);
  border-radius: 2px;
  background: var(--paper);
  padding: 14px 16px;
}
h2 {
  font-size: 42px;
  line-height: 1;
}
.count {
  font-size: 18px;
  font-weight: 620;
  font-stretch: 78%;
}
dl {
  margin: 0;
}
dt {
  font-size: 12.5px;
  color: var(--ink-2);
  margin-top: 8px;
}
dd {
  margin: 0;
  font-size: 15px;
  line-height: 1.3;
}
.big {
  font-size: 18px;
  font-weight: 600;
  font-stretch: 78%;
}
.no {
  border-top: 1px solid var(--ink-2);
  padding-top: 6px;
}
</style>
