<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, inject, ref } from 'vue'

import { inSystem, NEWTON_PER_LBF, say, settings } from '../../settings'
import { dayOf } from '../../words'
import { flags, reach, ticks } from './scale'
import { tensionKey } from './useTension'

/** One scale of tension for the stage: where it slips, what to set, what suffers beyond, every rule and every reading on it. */
const desk = inject(tensionKey)!
const frame = ref<HTMLElement>()
const { width } = useElementSize(frame)
const tight = desk.tight
const w = computed(() => Math.max(240, width.value))
const shown = computed(() => desk.kept.value.slice(0, 4))
const far = computed(() => (tight.value ? reach(tight.value, shown.value) : 1))
const x = (n: number) => Math.min(w.value, Math.max(0, (n / far.value) * w.value))
const unit = computed(() => (settings.value.system === 'us' ? NEWTON_PER_LBF : 1))
const axis = computed(() => ticks(far.value, unit.value).map((t) => ({ at: x(t * unit.value), text: String(t) })))
const of = (key: string) => tight.value?.marks.find((m) => m.key === key)
const above = computed(() => (tight.value ? flags(tight.value, far.value, w.value, (m) => inSystem(m.text)) : []))
const rows = computed(() => Math.max(0, ...above.value.map((f) => f.row + 1)))
const top = computed(() => 8 + rows.value * 30)
const hangs = computed(() => tight.value?.runs === 'chain')
const lowest = computed(() => {
  const known = (tight.value?.uppers ?? []).flatMap((u) => (u.limit ? [u.limit] : []))
  if (hangs.value) known.push(of('run in')?.high ?? Infinity)
  return known.length ? Math.min(...known) : null
})
/** Under it the belt slips, or a chain hangs too deep. */
const shownBands = computed(() =>
  of('manual') && (tight.value?.by_manual || !of('run in')) ? ['manual'] : hangs.value ? ['run in'] : ['run in', 'new'],
)
const slip = computed(() => of('running')?.mid ?? (hangs.value ? (of('run in')?.low ?? null) : null))
/** From where it likely slips to where even a cautious grip holds. */
const doubtful = computed(() => (slip.value !== null && !hangs.value ? (of('running')?.high ?? slip.value) : null))
const raised = computed(() =>
  of('published') && of('run in') ? of('published')!.mid < of('run in')!.mid - 0.5 : false,
)
/** Where a band's word begins: past the target's line where that stands in it. */
function inner(key: string): number {
  const [band, aim] = [of(key)!, of('target')]
  return aim && aim.mid >= band.low && aim.mid < band.low + (band.high - band.low) / 2 ? aim.mid : band.low
}
/** As much of the run-in band's word as fits before the new band's. */
const runInWord = computed(() => {
  if (hangs.value) return 'right'
  const room = of('new') ? x(of('new')!.low) - x(inner('run in')) : 999
  return room > 78 ? 'right, run in' : room > 42 ? 'run in' : ''
})
const fresh = computed(() => desk.gauge.value.belt_state === 'new')
/** Under the bar: what was just read, what is on the record, the manual, the rules of thumb. */
const lines = computed(() => {
  const t = tight.value
  if (!t) return []
  const now = t.strands.map((s, i) => ({
    key: `now ${i}`,
    kind: 'now',
    label: t.strands.length > 1 ? `${t.runs} ${i + 1}, now` : 'now',
    low: s.tension - 2 * s.std,
    mid: s.tension,
    high: s.tension + 2 * s.std,
    text: '',
  }))
  const before = shown.value.map((k) => ({
    key: k.id,
    kind: 'kept',
    label: `${dayOf(k.at)}${k.belt_state === 'new' ? ', new' : ''}`,
    low: k.tension - 2 * k.std,
    mid: k.tension,
    high: k.tension + 2 * k.std,
    text: '',
  }))
  const others = t.marks
    .filter(
      (m) =>
        m.kind === 'rule' || m.kind === 'manual' || m.kind === 'margin' || (m.kind === 'published' && raised.value),
    )
    .map((m) => ({
      key: m.key,
      kind: m.kind,
      label: m.label,
      low: m.low,
      mid: m.mid,
      high: m.high,
      text: inSystem(m.text),
    }))
  return [...now, ...before, ...others]
})
const height = computed(() => top.value + 34 + 26 + lines.value.length * 21 + 4)
const said = computed(() => {
  const band = of(fresh.value ? 'new' : 'run in')
  const parts = above.value.map((f) => `${f.label} ${f.text}`)
  return `${band ? `Right from ${inSystem(band.text)}. ` : ''}${parts.join('; ')}.`
})
</script>

<template>
  <figure v-if="tight" ref="frame" class="scale">
    <figcaption>
      <b>Tension window</b>
      <span class="soft small">
        {{ inSystem({ us: 'lbf', si: 'N' }) }} in
        {{ hangs ? 'the slack strand' : `one ${tight.one}, at rest` }}
      </span>
      <span v-if="tight.first" class="soft small">· slips first at the {{ say(tight.first) }}</span>
      <span v-if="tight.empty" class="ember small"><b>empty</b></span>
    </figcaption>
    <svg :width="w" :height="height" role="img" :aria-label="say(said)">
      <defs>
        <pattern id="tight-out" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="7" height="7" class="out" />
          <line x1="0" y1="0" x2="0" y2="7" class="hatch" />
        </pattern>
      </defs>
      <rect x="0" :y="top" :width="w" height="34" class="plain" />
      <rect v-if="slip !== null" x="0" :y="top" :width="x(slip)" height="34" fill="url(#tight-out)" />
      <rect
        v-if="slip !== null && doubtful !== null"
        :x="x(slip)"
        :y="top"
        :width="Math.max(0, x(doubtful) - x(slip))"
        height="34"
        class="doubtful"
      />
      <template v-for="key in shownBands" :key="key">
        <rect
          v-if="of(key)"
          :x="x(of(key)!.low)"
          :y="top"
          :width="Math.max(0, x(of(key)!.high) - x(of(key)!.low))"
          height="34"
          :class="key === 'new' || (hangs && key === 'run in') ? 'fresh' : 'in'"
        />
      </template>
      <rect
        v-if="lowest !== null && lowest < far"
        :x="x(lowest)"
        :y="top"
        :width="w - x(lowest)"
        height="34"
        fill="url(#tight-out)"
      />
      <rect x="0.5" :y="top" :width="w - 1" height="34" class="frame" />
      <template v-if="hangs && of('run in')">
        <text :x="x(of('run in')!.low) - 6" :y="top + 22" text-anchor="end" class="word">hangs too deep</text>
        <text :x="x(of('run in')!.high) + 6" :y="top + 22" class="word">too tight</text>
      </template>
      <text v-if="shownBands[0] === 'manual'" :x="x(inner('manual')) + 5" :y="top + 22" class="word on">
        by the manual
      </text>
      <text v-else-if="of('run in')" :x="x(inner('run in')) + 5" :y="top + 22" class="word on">
        {{ runInWord }}
      </text>
      <text
        v-if="shownBands.includes('new') && of('new') && x(of('new')!.high) - x(of('new')!.low) > 34"
        :x="x(inner('new')) + 5"
        :y="top + 22"
        class="word on"
      >
        new
      </text>
      <line
        v-for="f in above"
        :key="`${f.key} stem`"
        :x1="f.x"
        :x2="f.x"
        :y1="top - 6 - f.row * 30"
        :y2="top + 34"
        class="stem"
        :class="f.kind"
      />
      <g v-for="f in above" :key="f.key" class="flag" :class="f.kind">
        <text :x="f.x" :y="top - 22 - f.row * 30" :text-anchor="f.end" class="word">{{ say(f.label) }}</text>
        <text :x="f.x" :y="top - 9 - f.row * 30" :text-anchor="f.end" class="tick">{{ f.text }}</text>
      </g>
      <g v-for="t in axis" :key="t.text">
        <line :x1="t.at" :x2="t.at" :y1="top + 34" :y2="top + 39" class="edge" />
        <text :x="Math.min(w - 10, Math.max(6, t.at))" :y="top + 51" text-anchor="middle" class="tick">
          {{ t.text }}
        </text>
      </g>
      <g v-for="(r, i) in lines" :key="r.key" :class="r.kind" :transform="`translate(0 ${top + 66 + i * 21})`">
        <title>{{ r.label }} {{ r.text }}</title>
        <line :x1="x(r.low)" :x2="x(r.high)" y1="0" y2="0" class="doubt" />
        <path v-if="r.high > far" :d="`M ${w - 7} -4 l 6 4 -6 4 z`" class="read" />
        <circle v-if="r.mid <= far" :cx="x(r.mid)" cy="0" :r="r.kind === 'now' ? 5 : 3.5" class="read" />
        <text
          :x="x(r.high) < w * 0.72 ? x(r.high) + 8 : x(r.low) > w * 0.3 ? x(r.low) - 8 : w - 12"
          :y="x(r.high) < w * 0.72 || x(r.low) > w * 0.3 ? 4 : -5"
          :text-anchor="x(r.high) < w * 0.72 ? 'start' : 'end'"
          class="tick"
        >
          {{ say(r.label) }}
        </text>
      </g>
    </svg>
  </figure>
</template>

<style scoped>
.scale {
  margin: 0;
  min-width: 0;
  overflow: hidden;
}
svg {
  display: block;
  max-width: 100%;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 0 7px;
  align-items: baseline;
  padding-bottom: 2px;
}
.plain {
  fill: var(--sheet);
}
.out {
  fill: var(--ember-tint);
}
.hatch {
  stroke: var(--ember);
  stroke-width: 1;
  opacity: 0.45;
}
.in {
  fill: var(--within-tint);
}
.fresh {
  fill: var(--within);
  opacity: 0.3;
}
.doubtful {
  fill: var(--ember-tint);
  opacity: 0.55;
}
.frame {
  fill: none;
  stroke: var(--ink);
}
.edge,
.stem {
  stroke: var(--ink);
}
.stem.slip,
.stem.upper {
  stroke: var(--ember);
}
.stem.target {
  stroke-width: 2.5;
}
.word,
.flag .tick {
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4px;
  stroke-linejoin: round;
}
.on {
  stroke: none;
}
.word {
  font: 12.5px var(--font);
  font-stretch: 76%;
  fill: var(--ink);
}
.tick {
  font: 12px var(--font);
  font-stretch: 80%;
  fill: var(--ink-2);
}
.target .word {
  font-weight: 640;
}
.doubt {
  stroke: var(--ink-2);
  stroke-width: 4;
  opacity: 0.35;
}
.rule .doubt {
  stroke-dasharray: 5 3;
  stroke-width: 2;
  opacity: 0.8;
}
.manual .doubt {
  stroke-width: 7;
}
.now .doubt {
  opacity: 0.55;
}
.read {
  fill: var(--ink-2);
}
.now .read {
  fill: var(--ink);
}
.now .tick {
  fill: var(--ink);
  font-weight: 620;
}
</style>
