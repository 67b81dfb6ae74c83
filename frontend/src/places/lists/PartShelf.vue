<script setup lang="ts">
import { computed } from 'vue'

import type { components } from '../../api/schema'
import { inSystem } from '../../settings'

/** The shop's parts as they would lie on a shelf: wheels to one scale a board, belts and chain as labels beside them. */
type Part = components['schemas']['PartOut']
const { rows, count, byFit } = defineProps<{ rows: Part[]; count: number; byFit: Record<string, number> }>()
const PX = 84
const boards = computed(() => {
  const found = new Map<string, Part[]>()
  for (const r of rows) found.set(r.fits, [...(found.get(r.fits) ?? []), r])
  return [...found].map(([fits, parts]) => {
    const wheels = parts.filter((p) => p.part === 'wheel').sort((a, b) => a.across_m - b.across_m)
    const largest = Math.max(...wheels.map((w) => w.across_m), 1e-6)
    return {
      fits,
      many: byFit[fits] ?? parts.length,
      wheels: wheels.map((w) => ({ ...w, px: Math.max(10, (PX * w.across_m) / largest) })),
      others: parts.filter((p) => p.part !== 'wheel'),
    }
  })
})
const counted = (p: Part) =>
  p.part === 'belt' ? 'ribs' : p.said.includes('teeth') || p.part === 'chain' ? 'strands' : 'grooves'
const made = (p: Part) =>
  [p.grooves > 1 ? `${p.grooves} ${counted(p)}` : '', p.width ? inSystem(p.width) : ''].filter(Boolean).join(', ')
const lies = (p: Part) => (p.on_hand ? `${p.on_hand} on the shelf` : 'to order')
</script>

<template>
  <div class="shelves">
    <p v-if="!rows.length" class="teach">
      Bring your own list and it lies here: what you can have, how many are on the shelf, and what each costs. Size then
      chooses from it, and weighs the price.
    </p>
    <p v-else-if="count > rows.length" class="small soft">The first {{ rows.length }} of {{ count }} are drawn.</p>
    <section v-for="b in boards" :key="b.fits" :aria-label="b.fits">
      <h2>
        {{ b.fits }} <span class="soft small">{{ b.many }}</span>
      </h2>
      <ul>
        <li v-for="(w, i) in b.wheels" :key="i" class="wheel">
          <svg :width="w.px + 2" :height="w.px + 2" aria-hidden="true">
            <circle :cx="w.px / 2 + 1" :cy="w.px / 2 + 1" :r="w.px / 2" class="rim" />
            <circle :cx="w.px / 2 + 1" :cy="w.px / 2 + 1" :r="w.px / 9" class="bore" />
          </svg>
          <span class="said"
            ><b>{{ w.said }}</b
            ><br />
            <template v-if="made(w)">{{ made(w) }}<br /></template>
            <span :class="{ soft: !w.on_hand }">{{ lies(w) }}</span>
            <template v-if="w.price !== null"><br />{{ w.price.toFixed(2) }}</template>
            <template v-if="w.number"
              ><br /><span class="soft">{{ w.number }}</span></template
            >
          </span>
        </li>
        <li v-for="(p, i) in b.others" :key="`o${i}`" class="belt">
          <b>{{ p.said }}</b>
          <span v-if="made(p)">{{ made(p) }}</span>
          <span :class="{ soft: !p.on_hand }">{{ lies(p) }}</span>
          <span v-if="p.price !== null"
            >{{ p.price.toFixed(2) }}{{ p.said === 'cut to length' ? ' a metre' : '' }}</span
          >
          <span v-if="p.number" class="soft">{{ p.number }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.shelves {
  padding: 8px 20px 20px;
}
.teach {
  padding: 24px 0;
  max-width: 46em;
}
section {
  border-bottom: 3px solid var(--ink-2);
  padding-top: 14px;
}
h2 {
  font-size: 18px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 10px 22px;
  align-items: flex-end;
}
.wheel {
  display: flex;
  gap: 8px;
  align-items: flex-end;
  padding-bottom: 4px;
}
.said,
.belt {
  font-size: 13px;
  font-stretch: 80%;
  line-height: 1.25;
}
.rim {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.bore {
  fill: var(--paper);
  stroke: var(--ink);
}
.belt {
  border: 1px solid var(--ink-2);
  border-bottom: 0;
  background: var(--sheet);
  padding: 4px 8px;
  display: grid;
}
</style>
