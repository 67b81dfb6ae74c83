<script setup lang="ts">
import { startAuthentication } from '@simplewebauthn/browser'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'

import { api, Refused, type Session, unwrap } from '../api/client'
import { useSessionChange } from '../api/queries'

/** The second factor, before the plant opens: the code of an authenticator, or a passkey. */
const { data: has } = useQuery({ queryKey: ['factors'], queryFn: () => unwrap(api.GET('/api/session/factors')) })
const code = ref('')
const byCode = useSessionChange<void>(() => unwrap(api.POST('/api/session/code', { body: { code: code.value } })))
const byKey = useSessionChange<void>(async (): Promise<Session> => {
  const { options, token } = await unwrap(api.POST('/api/session/passkey/ask'))
  const credential = await startAuthentication({ optionsJSON: options as never })
  return unwrap(api.POST('/api/session/passkey', { body: { token, credential: credential as never, name: '' } }))
})
const leave = useSessionChange<void>(() => unwrap(api.DELETE('/api/session')))
const wrong = computed(() => {
  const error = byCode.error.value ?? byKey.error.value
  if (!error) return ''
  return error instanceof Refused ? error.problem.detail : 'No passkey was shown. Try again, or use the code.'
})
const withKey = computed(() => Boolean(has.value?.passkeys.length && !has.value.lacks))
</script>

<template>
  <section class="stack">
    <h2>Second factor</h2>
    <form v-if="has?.code" class="stack" @submit.prevent="byCode.mutate()">
      <label>
        The six digits that your authenticator shows now
        <el-input v-model="code" inputmode="numeric" autocomplete="one-time-code" maxlength="12" />
      </label>
      <el-button type="primary" native-type="submit" :loading="byCode.isPending.value">Sign in</el-button>
    </form>
    <el-button v-if="withKey" :loading="byKey.isPending.value" @click="byKey.mutate()">Use a passkey</el-button>
    <p v-else-if="has?.passkeys.length" class="soft small">{{ has.lacks }}</p>
    <p v-if="wrong" class="wrong ember" role="alert">{{ wrong }}</p>
    <p class="soft small">Lost it? Whoever runs the server takes it off with bin/reset-factor and your name.</p>
    <button type="button" class="bare" @click="leave.mutate()"><u>Sign in as somebody else</u></button>
  </section>
</template>
