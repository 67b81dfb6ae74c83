<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import { api, unwrap } from '../api/client'
import { useSite } from '../api/queries'
import AskStrip from '../stations/AskStrip.vue'
import BenchNav from './BenchNav.vue'
import OwnList from './lists/OwnList.vue'
import PartShelf from './lists/PartShelf.vue'
import RatingCurves from './lists/RatingCurves.vue'

/** What the shop has of its own: parts with their prices, and rating tables that override the standards'. */
const route = useRoute()
const ask = computed(() => (route.params.ask === 'ratings' ? 'ratings' : 'parts'))
const site = useSite()
const at = computed(() => site.value?.id ?? '')
const { data, error } = useQuery({
  queryKey: computed(() => ['own lists', at.value]),
  enabled: computed(() => Boolean(at.value)),
  queryFn: () => unwrap(api.GET('/api/sites/{site_id}/lists', { params: { path: { site_id: at.value } } })),
})
const ASKS = ['parts', 'ratings'] as const
const TITLES = { parts: 'Parts and prices', ratings: 'Ratings' }
</script>

<template>
  <div class="bench">
    <BenchNav here="lists" />
    <div class="work">
      <section class="board" tabindex="0" :aria-label="TITLES[ask]">
        <p v-if="error" class="teach" role="alert">The lists could not be read: {{ error.message }}</p>
        <template v-else-if="data">
          <PartShelf v-if="ask === 'parts'" :rows="data.part_rows" :count="data.part_count" :by-fit="data.by_fit" />
          <RatingCurves v-else :tables="data.compared" :power="data.power" />
        </template>
      </section>
      <section class="panel" data-panel aria-label="Own lists">
        <AskStrip base="/bench/lists" :asks="ASKS" :titles="TITLES" :ask="ask" />
        <OwnList v-if="data" :key="ask" :what="ask" :held="data[ask]" />
      </section>
    </div>
  </div>
</template>

<style src="../sheet/work.css" scoped></style>
<style scoped>
.board {
  overflow: auto;
  display: block;
}
.teach {
  padding: 24px;
}
@media (max-width: 760px) {
  /* What can be done comes first: the shelf may be long. */
  .work {
    display: flex;
    flex-direction: column-reverse;
  }
  .board {
    position: static;
    border-top: 1px solid var(--hair);
  }
}
</style>
