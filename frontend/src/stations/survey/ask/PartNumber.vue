<script setup lang="ts">
import { computed, ref } from 'vue'

import type { DriveOut } from '../../../api/client'
import { useFound, useMayWrite } from '../../../api/queries'
import DetailsSlip from '../../../sheet/DetailsSlip.vue'
import CrossReferenceSlip from './CrossReferenceSlip.vue'

/** First ask for the machine's own part number; the shop's own list says which belt it means. */
const { drive } = defineProps<{ drive: DriveOut }>()
const emit = defineEmits<{ choose: [designation: string, section: string] }>()
const { data: found } = useFound(() => drive.id)
const cross = computed(() => found.value?.cross_reference)
const mayWrite = useMayWrite()
const details = ref(false)
const list = ref(false)
</script>

<template>
  <section class="part" aria-label="The machine's own part number">
    <template v-if="drive.part_number">
      <p>
        <span class="soft small">The machine's own part number</span>
        <b>{{ drive.part_number }}</b>
      </p>
      <p v-if="cross">
        Your shop's list says
        <b>{{ cross.designation }}</b>
        <span v-if="cross.note" class="soft">({{ cross.note }})</span>
        <button type="button" class="bare" @click="emit('choose', cross.designation, '')"><u>Take it</u></button>
      </p>
      <p v-else class="small soft">It is not in your shop's list.</p>
    </template>
    <p v-else>
      <b>First look for the machine's own part number</b>
      <span class="small soft">on its plate, guard or manual: it settles special belts that no measuring can.</span>
    </p>
    <p v-if="mayWrite" class="row small">
      <button type="button" class="bare" @click="details = true">
        <u>{{ drive.part_number ? 'Change it' : 'Write it down' }}</u>
      </button>
      <button type="button" class="bare" @click="list = true"><u>Load a shop list (CSV)</u></button>
    </p>
    <DetailsSlip v-if="details" v-model="details" :drive="drive" />
    <CrossReferenceSlip v-if="list" v-model="list" />
  </section>
</template>

<style scoped>
.part {
  border: 1px solid var(--hair);
  border-radius: 3px;
  padding: 9px 12px;
  display: grid;
  gap: 4px;
}
.part p:first-child {
  display: grid;
}
.part .row button {
  min-height: 32px;
}
</style>
