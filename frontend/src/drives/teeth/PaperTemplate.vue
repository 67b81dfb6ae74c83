<script setup lang="ts">
import { computed } from 'vue'

import type { Toothed } from '../../api/client'
import { beltShape, plateShape } from './templatePath'

/** The candidates at 1:1 on paper, with a ruler to check the print by; on the screen only its button shows. */
const { found } = defineProps<{ found: Toothed }>()
const MM = 1000
const rows = computed(() => {
  let y = 34
  return found.found.slice(0, 4).map((c) => {
    const height = c.template.height_m * MM
    y += height + 16
    return { ...c, y, mid: y - height / 2 }
  })
})
const height = computed(() => (rows.value[rows.value.length - 1]?.y ?? 40) + 14)
const centimetres = Array.from({ length: 11 }, (_, k) => k)
const quarters = Array.from({ length: 17 }, (_, k) => k)
const print = () => window.print()
</script>

<template>
  <el-button class="no-print" @click="print">Print the template 1:1</el-button>
  <!-- Millimetres are the units of the picture: 1 is 1 mm on paper. -->
  <svg class="paper" :width="`${180}mm`" :height="`${height}mm`" :viewBox="`0 0 180 ${height}`" aria-hidden="true">
    <g stroke="#000" stroke-width="0.2" fill="none" font-family="sans-serif">
      <path d="M 5 12 H 105" />
      <path v-for="k in centimetres" :key="k" :d="`M ${5 + 10 * k} 12 v ${k % 5 ? -2 : -4}`" />
      <path d="M 5 20 H 106.6" />
      <path v-for="k in quarters" :key="`q${k}`" :d="`M ${5 + 6.35 * k} 20 v ${k % 4 ? 1.5 : 4}`" />
      <text x="108" y="12" font-size="3.2" fill="#000" stroke="none">100 mm: lay a rule on it</text>
      <text x="108" y="23" font-size="3.2" fill="#000" stroke="none">4 in; print at 100 %, not "fit to page"</text>
      <g v-for="r in rows" :key="r.name">
        <path v-if="r.template.belt" :d="beltShape(r.template, MM, 5, r.y)" />
        <template v-else>
          <path
            v-for="k in r.template.teeth"
            :key="k"
            :d="plateShape(r.template, MM, 20 + (k - 1) * r.template.pitch_m * MM, r.mid)"
          />
          <circle
            v-for="k in r.template.teeth + 1"
            :key="`c${k}`"
            :cx="20 + (k - 1) * r.template.pitch_m * MM"
            :cy="r.mid"
            :r="((r.template.roller_m ?? r.template.pin_m ?? 0) * MM) / 2"
          />
        </template>
        <text x="5" :y="r.y + 5" font-size="4" fill="#000" stroke="none">{{ r.name }} · {{ r.what }}</text>
      </g>
    </g>
  </svg>
</template>

<style scoped>
.paper {
  display: none;
}
@media print {
  .paper {
    display: block;
  }
}
</style>
