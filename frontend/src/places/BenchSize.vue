<script setup lang="ts">
import { computed, provide, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useChoices } from '../api/queries'
import { blankForm } from '../sheet/form'
import { answersKey, focusKey, moreFiguresKey, workingKey } from '../sheet/useSheet'
import WorkingSlip from '../sheet/WorkingSlip.vue'
import type { Sheet } from '../api/client'
import { SIZE_TITLES } from '../stations/asks'
import AskStrip from '../stations/AskStrip.vue'
import SideBySide from '../stations/size/ask/SideBySide.vue'
import WhatWouldDo from '../stations/size/ask/WhatWouldDo.vue'
import WhyNot from '../stations/size/ask/WhyNot.vue'
import SizeBoard from '../stations/size/SizeBoard.vue'
import { useSizeAsk } from '../stations/size/useSizeAsk'
import { sizeDeskKey, useSizeDesk } from '../stations/size/useSizeDesk'
import BenchNav from './BenchNav.vue'
import MakeDrive from './MakeDrive.vue'
import WhatIfs from './WhatIfs.vue'

/** Size without a drive: start blank or from one that is copied, keep several what-ifs, make one into a drive. */
const route = useRoute()
const router = useRouter()
const ask = computed(() =>
  ['compare', 'why'].includes(String(route.params.ask)) ? (route.params.ask as 'compare' | 'why') : 'choose',
)
const { data: choices } = useChoices()
const asked = useSizeAsk('bench')
const sheet = ref(blankForm())
const desk = useSizeDesk(asked, sheet, () => ask.value)
provide(sizeDeskKey, desk)
provide(focusKey, ref(''))
provide(answersKey, { note: () => undefined, problem: () => undefined })
const working = ref<string | null>(null)
provide(workingKey, (key) => (working.value = key))
const figures = ref<Sheet['figures']>({})
provide(moreFiguresKey, figures)
const ASKS = ['choose', 'compare', 'why'] as const
const { choose, compare, why } = SIZE_TITLES
const TITLES = { choose, compare, why }
</script>

<template>
  <div class="bench">
    <BenchNav here="size" />
    <div class="work">
      <section class="board" aria-label="Drives that would do">
        <SizeBoard :ask="ask" />
      </section>
      <section class="panel" data-panel aria-label="Size">
        <AskStrip base="/bench/size" :asks="ASKS" :titles="TITLES" :ask="ask" />
        <template v-if="choices">
          <template v-if="ask === 'choose'">
            <WhatIfs v-model="asked" />
            <WhatWouldDo :choices="choices" :record="false" @compare="router.push('/bench/size/compare')">
              <template #candidate="{ candidate }"><MakeDrive :key="candidate.key" :candidate="candidate" /></template>
            </WhatWouldDo>
          </template>
          <SideBySide v-else-if="ask === 'compare'" />
          <WhyNot v-else :record="false" />
        </template>
      </section>
    </div>
    <WorkingSlip v-model="working" :figures="figures" />
  </div>
</template>

<style src="../sheet/work.css" scoped></style>
