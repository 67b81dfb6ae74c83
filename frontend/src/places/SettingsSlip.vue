<script setup lang="ts">
import { ref } from 'vue'

import DueRulesSlip from '../open/DueRulesSlip.vue'
import { settings } from '../settings'
import FactorSlip from './FactorSlip.vue'
import PassphraseSlip from './PassphraseSlip.vue'
import PeopleSlip from './PeopleSlip.vue'

const open = defineModel<boolean>({ required: true })
defineProps<{ name: string; site: { id: string; name: string; role: string } | null }>()
defineEmits<{ leave: []; keys: [] }>()
const ruling = ref(false)
</script>

<template>
  <el-drawer v-model="open" title="Settings" direction="ltr" :size="340" append-to-body>
    <div class="stack">
      <p v-if="site">{{ `${name}, ${site.role} at ${site.name}` }}</p>
      <fieldset>
        <legend>Units shown first</legend>
        <el-radio-group v-model="settings.system">
          <el-radio value="us">inch, lbf, hp</el-radio>
          <el-radio value="si">mm, N, kW</el-radio>
        </el-radio-group>
      </fieldset>
      <fieldset>
        <legend>The word you use</legend>
        <el-radio-group v-model="settings.word">
          <el-radio value="sheave">sheave</el-radio>
          <el-radio value="pulley">pulley</el-radio>
        </el-radio-group>
      </fieldset>
      <fieldset>
        <legend>Paper</legend>
        <el-radio-group v-model="settings.theme">
          <el-radio value="auto">as the device</el-radio>
          <el-radio value="light">light</el-radio>
          <el-radio value="dark">dark</el-radio>
        </el-radio-group>
      </fieldset>
      <el-checkbox v-model="settings.keys">Single keys act outside fields</el-checkbox>
      <el-button @click="((open = false), $emit('keys'))">List of keys</el-button>
      <el-button @click="((open = false), $emit('leave'))">Sign out</el-button>
      <PassphraseSlip />
      <FactorSlip v-if="open" />
      <el-button v-if="site" @click="ruling = true">What falls due, and after what</el-button>
      <DueRulesSlip v-if="ruling && site" v-model="ruling" :site-id="site.id" :lead="site.role === 'lead'" />
      <PeopleSlip v-if="open && site?.role === 'lead'" :site-id="site.id" />
    </div>
  </el-drawer>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  font-weight: 600;
  padding: 0 0 2px;
}
.el-button + .el-button {
  margin-left: 0;
}
</style>
