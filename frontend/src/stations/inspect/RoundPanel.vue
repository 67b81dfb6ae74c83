<script setup lang="ts">
import { computed, inject, ref } from 'vue'

import { useMayWrite } from '../../api/queries'
import { say } from '../../settings'
import KeepBar from '../../sheet/KeepBar.vue'
import { when } from '../../words'
import { roundKey } from './useRound'

/** The round as a list: what runs, what is stopped, how far one is, and finishing it; or which one to begin. */
const desk = inject(roundKey)!
const { data, round, items } = desk
const mayWrite = useMayWrite()
const note = ref('')
const groups = computed(() =>
  (['running', 'stopped'] as const)
    .map((state) => ({ state, items: items.value.filter((i) => i.state === state) }))
    .filter((g) => g.items.length),
)
const MARK: Record<string, string> = { ok: '✓', 'not ok': '■', measured: '✓', cannot: '–', '': '' }
const SAID: Record<string, string> = {
  ok: 'OK',
  'not ok': 'not OK',
  measured: 'measured',
  cannot: 'cannot',
  '': 'not yet',
}
const left = computed(() => desk.left.value.length)
</script>

<template>
  <div class="station">
    <p v-if="desk.error.value" role="alert">
      The rounds could not be read. <button type="button" class="bare" @click="desk.refetch()"><u>Try again</u></button>
    </p>
    <template v-else-if="round">
      <h3>{{ round.title }}</h3>
      <p class="count">
        <b>{{ round.done }}</b> of {{ items.length }} looked at<template v-if="round.not_ok"
          >, <b class="ember">{{ round.not_ok }} not OK</b></template
        >
        <span class="progress" aria-hidden="true"
          ><i :style="{ width: `${(100 * round.done) / Math.max(1, items.length)}%` }"
        /></span>
      </p>
      <section
        v-for="g in groups"
        :key="g.state"
        :aria-label="g.state === 'running' ? 'Running, guard on' : 'Stopped, locked out'"
      >
        <h4 :class="g.state">{{ g.state === 'running' ? 'Running, guard on' : 'Stopped, locked out' }}</h4>
        <ol>
          <li v-for="i in g.items" :key="i.key">
            <button type="button" :class="{ here: desk.item.value?.key === i.key }" @click="desk.gone.value = i.key">
              <span class="mark" :class="{ ember: i.found === 'not ok' }" aria-hidden="true">{{ MARK[i.found] }}</span>
              <span
                >{{ say(i.ask) }}<span class="sr">: {{ SAID[i.found] }}</span></span
              >
            </button>
          </li>
        </ol>
      </section>
      <label v-if="left && mayWrite" class="why">
        {{ left }} not looked at: why are they left?
        <el-input v-model="note" maxlength="400" placeholder="shift ended; the rest tomorrow" />
      </label>
      <p class="small soft">It waits for you here, and on any other device, until it is finished.</p>
    </template>
    <template v-else-if="data">
      <h3>Walk round it</h3>
      <p v-if="desk.last.value" role="status">
        <b>✓ {{ desk.last.value }}</b>
      </p>
      <p class="small">{{ data.why }}</p>
      <div class="depths">
        <button
          v-for="d in data.depths"
          :key="d.depth"
          type="button"
          :class="{ due: d.depth === data.suggested }"
          :disabled="!mayWrite || desk.began.busy.value"
          @click="desk.begin(d.depth)"
        >
          <b>{{ d.title }}</b>
          <span class="small">
            {{ d.items }} things<template v-if="d.stopped">, {{ d.stopped }} of them locked out</template>
          </span>
          <span class="small soft"
            >{{ d.last ? `last ${when(d.last)}` : 'never yet'
            }}{{ d.depth === data.suggested ? ' · it is time for this one' : '' }}</span
          >
        </button>
      </div>
      <p v-if="!mayWrite" class="small soft">View only. A round needs the Mechanic role.</p>
      <p v-if="desk.began.problem.value" class="ember" role="alert">{{ desk.began.problem.value.detail }}</p>
      <section v-if="data.before.length" aria-label="Rounds before">
        <h4>Before</h4>
        <details v-for="r in data.before" :key="r.id">
          <summary>
            {{ when(r.finished_at!) }}, {{ say(r.title) }}: {{ r.done }} of {{ r.items.length
            }}<b v-if="r.not_ok" class="ember">, {{ r.not_ok }} not OK</b>
          </summary>
          <p
            v-for="i in r.items.filter((x) => x.found === 'not ok' || x.found === 'cannot')"
            :key="i.key"
            class="small"
          >
            {{ MARK[i.found] }} {{ say(i.ask) }} {{ SAID[i.found] }}{{ i.words ? `: “${i.words}”` : '' }}
          </p>
          <p v-if="!r.items.some((x) => x.found === 'not ok' || x.found === 'cannot')" class="small soft">
            All in order.
          </p>
        </details>
      </section>
    </template>
  </div>
  <KeepBar
    v-if="round"
    :busy="desk.ended.busy.value"
    :waiting="desk.ended.waiting.value"
    :problem="desk.ended.problem.value"
    kept=""
    :may-write="mayWrite"
    :disabled="left > 0 && !note.trim()"
    :idle="left ? `${left} to look at yet.` : ''"
    label="Finish this round"
    @keep="desk.finish(note)"
    @retry="desk.ended.retry"
  />
</template>

<style scoped>
.station {
  padding: 16px 18px 18px;
  display: grid;
  gap: 12px;
}
h3 {
  font-size: 20px;
}
h4 {
  margin: 0;
  font-size: 14px;
  padding: 4px 0 4px 10px;
  border-left: 5px solid var(--ink-2);
}
h4.running {
  border-left-color: var(--within);
}
h4.stopped {
  border-left-color: var(--ember);
}
.count b {
  font-size: 20px;
}
.progress {
  display: block;
  height: 6px;
  background: var(--hair-2);
  margin-top: 6px;
}
.progress i {
  display: block;
  height: 100%;
  background: var(--ink);
}
ol {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
li button {
  display: grid;
  grid-template-columns: 24px 1fr;
  gap: 6px;
  align-items: center;
  width: 100%;
  min-height: 40px;
  border: 0;
  border-bottom: 1px solid var(--hair-2);
  background: none;
  text-align: left;
  cursor: pointer;
  padding: 4px 6px;
  font-size: 14.5px;
}
li .here {
  background: var(--sheet);
  box-shadow: inset 3px 0 0 var(--ink);
  font-weight: 620;
}
.mark {
  text-align: center;
  font-weight: 700;
}
.depths {
  display: grid;
  gap: 8px;
}
.depths button {
  display: grid;
  gap: 2px;
  min-height: 76px;
  text-align: left;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  padding: 10px 14px;
  cursor: pointer;
}
.depths .due {
  border-color: var(--ink);
  box-shadow: inset 5px 0 0 var(--ember);
}
.depths b {
  font-size: 18px;
  font-stretch: 80%;
}
summary {
  min-height: 40px;
  display: flex;
  align-items: center;
  cursor: pointer;
}
.why {
  display: grid;
  gap: 4px;
  font-weight: 560;
  font-size: 13.5px;
}
@media (max-width: 760px) {
  li button {
    min-height: 46px;
  }
}
</style>
