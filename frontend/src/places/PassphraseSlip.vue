<script setup lang="ts">
import { ElMessage } from 'element-plus'
import { computed, reactive } from 'vue'

import { api, Refused, unwrap } from '../api/client'
import { useSessionChange } from '../api/queries'

/** Change one's own passphrase. */
const form = reactive({ present: '', wanted: '' })
const change = useSessionChange<void>(() => unwrap(api.POST('/api/session/passphrase', { body: { ...form } })))
const wrong = computed<Record<string, string>>(() => {
  const error = change.error.value
  if (!error) return {}
  if (error instanceof Refused) return Object.fromEntries((error.problem.errors ?? []).map((e) => [e.field, e.detail]))
  return { wanted: error.message }
})
async function send(): Promise<void> {
  await change.mutateAsync().then(
    () => {
      form.present = form.wanted = ''
      ElMessage.success('Your passphrase is changed.')
    },
    () => undefined,
  )
}
</script>

<template>
  <details>
    <summary>Change your passphrase</summary>
    <form class="stack" @submit.prevent="send">
      <label>
        The one you have
        <el-input v-model="form.present" type="password" autocomplete="current-password" />
        <span v-if="wrong.present" class="ember">{{ wrong.present }}</span>
      </label>
      <label>
        The one you want
        <el-input v-model="form.wanted" type="password" autocomplete="new-password" />
        <span v-if="wrong.wanted" class="ember">{{ wrong.wanted }}</span>
      </label>
      <el-button native-type="submit" :loading="change.isPending.value">Change</el-button>
    </form>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  padding: 8px 0;
}
label {
  display: grid;
  gap: 4px;
  font-size: 13.5px;
  font-weight: 560;
}
</style>
