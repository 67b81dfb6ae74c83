<script setup lang="ts">
import { ElMessage } from 'element-plus'
import { computed, reactive } from 'vue'

import { api, Refused, unwrap } from '../api/client'
import { useSessionChange } from '../api/queries'

/** Change one's own passphrase; `first`: the one at hand was chosen by somebody else. */
const { first = false } = defineProps<{ first?: boolean }>()
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
  <component :is="first ? 'section' : 'details'">
    <h2 v-if="first">Choose your own passphrase</h2>
    <summary v-else>Change your passphrase</summary>
    <p v-if="first" class="soft small">The one you have was handed to you. From now on only you know it.</p>
    <form class="stack" @submit.prevent="send">
      <label>
        {{ first ? 'The one you were given' : 'The one you have' }}
        <el-input v-model="form.present" type="password" autocomplete="current-password" />
        <span v-if="wrong.present" class="ember">{{ wrong.present }}</span>
      </label>
      <label>
        The one you want, 10 characters or more
        <el-input v-model="form.wanted" type="password" show-password autocomplete="new-password" />
        <span v-if="wrong.wanted" class="ember">{{ wrong.wanted }}</span>
      </label>
      <el-button :type="first ? 'primary' : ''" native-type="submit" :loading="change.isPending.value">
        {{ first ? 'Save' : 'Change' }}
      </el-button>
    </form>
  </component>
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
