<script setup lang="ts">
import { settings } from '../settings'

const open = defineModel<boolean>({ required: true })
const KEYS = [
  ['1 … 7', 'go to the station (Alt with the digit works inside a field too)'],
  ['/', 'search on Floor'],
  ['n', 'new drive on Floor'],
  ['u', 'swap inches and millimetres'],
  ['Enter', 'on to the next field'],
  ['Esc', 'take back what was typed in this field'],
  ['?', 'this list'],
]
</script>

<template>
  <el-dialog v-model="open" title="Keys" width="min(440px, 94vw)" append-to-body>
    <dl>
      <template v-for="[key, does] in KEYS" :key="key">
        <dt>
          <kbd>{{ key }}</kbd>
        </dt>
        <dd>{{ does }}</dd>
      </template>
    </dl>
    <el-checkbox v-model="settings.keys">Single keys act outside fields</el-checkbox>
  </el-dialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 8px 10px;
  margin: 0 0 14px;
}
dd {
  margin: 0;
}
kbd {
  border: 1px solid var(--hair);
  border-bottom-width: 2px;
  border-radius: 3px;
  padding: 1px 7px;
  font: inherit;
  font-weight: 600;
  background: var(--paper);
  white-space: nowrap;
}
</style>
