<script setup lang="ts">
import { startRegistration } from '@simplewebauthn/browser'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'

import { api, Refused, type Session, unwrap } from '../api/client'
import { useSessionChange } from '../api/queries'
import { dayOf } from '../words'

/** A second factor of one's own: a code that goes by the time, passkeys. `first`: the site asks one of its leads, and there is none yet. */
const { first = false } = defineProps<{ first?: boolean }>()
const client = useQueryClient()
const { data: has } = useQuery({ queryKey: ['factors'], queryFn: () => unwrap(api.GET('/api/session/factors')) })
const made = ref<{ secret: string; qr: string; token: string } | null>(null)
const code = ref('')
const name = ref('')
const wrong = ref('')
async function tried(work: () => Promise<unknown>): Promise<void> {
  wrong.value = ''
  try {
    await work()
    await client.invalidateQueries({ queryKey: ['factors'] })
  } catch (error) {
    wrong.value = error instanceof Refused ? error.problem.detail : 'No passkey was made. Try again, or use a code.'
  }
}
const keepCode = useSessionChange<string>(
  (token) => unwrap(api.POST('/api/session/code/add', { body: { token, code: code.value } })),
  true,
)
const keepKey = useSessionChange<void>(async (): Promise<Session> => {
  const { options, token } = await unwrap(api.POST('/api/session/passkey/new'))
  const credential = await startRegistration({ optionsJSON: options as never })
  const body = { token, credential: credential as never, name: name.value }
  return unwrap(api.POST('/api/session/passkey/add', { body }))
}, true)
const begin = () => tried(async () => (made.value = await unwrap(api.POST('/api/session/code/new'))))
const add = () =>
  tried(async () => {
    await keepCode.mutateAsync(made.value!.token)
    made.value = null
    code.value = ''
  })
const addKey = () => tried(() => keepKey.mutateAsync())
const removeCode = () =>
  tried(async () => {
    await unwrap(api.POST('/api/session/code/remove', { body: { code: code.value } }))
    code.value = ''
  })
const removeKey = (id: string) => tried(() => unwrap(api.POST('/api/session/passkey/remove', { body: { id } })))
</script>

<template>
  <component :is="first ? 'section' : 'details'" class="stack">
    <h2 v-if="first">Add a second factor</h2>
    <summary v-else>Second factor</summary>
    <p class="soft small">
      {{ first ? 'Leads of this site need one.' : 'Asked for after the passphrase.' }} An authenticator on your phone
      shows a code; a passkey is kept by your device.
    </p>
    <template v-if="has?.code">
      <p class="small">A time-based code is set.</p>
      <form class="row" @submit.prevent="removeCode">
        <label>
          To remove it, type a code of it
          <el-input v-model="code" inputmode="numeric" autocomplete="one-time-code" maxlength="12" />
        </label>
        <el-button size="small" native-type="submit">Remove</el-button>
      </form>
    </template>
    <form v-else-if="made" class="stack" @submit.prevent="add">
      <img :src="made.qr" alt="The secret as a QR code, for the authenticator" />
      <p class="small">
        Scan it, or type <b class="secret">{{ made.secret }}</b>
      </p>
      <label>
        The six digits it shows
        <el-input v-model="code" inputmode="numeric" autocomplete="one-time-code" maxlength="12" />
      </label>
      <el-button type="primary" native-type="submit" :loading="keepCode.isPending.value">Save</el-button>
    </form>
    <el-button v-else :type="first ? 'primary' : ''" @click="begin">Add a time-based code</el-button>
    <ul v-if="has?.passkeys.length">
      <li v-for="p in has.passkeys" :key="p.id">
        <span
          >{{ p.name }} <span class="soft small">since {{ dayOf(p.added_at) }}</span></span
        >
        <button v-if="!first" type="button" class="bare" @click="removeKey(p.id)"><u>Remove</u></button>
      </li>
    </ul>
    <p v-if="has?.lacks" class="soft small">{{ has.lacks }}</p>
    <form v-else-if="has" class="row" @submit.prevent="addKey">
      <label>Name of this device<el-input v-model="name" maxlength="60" /></label>
      <el-button size="small" native-type="submit" :loading="keepKey.isPending.value">Add a passkey</el-button>
    </form>
    <p v-if="wrong" class="ember small" role="alert">{{ wrong }}</p>
  </component>
</template>

<style scoped>
summary {
  cursor: pointer;
  padding: 8px 0;
}
img {
  width: 200px;
  background: #fff;
}
.secret {
  overflow-wrap: anywhere;
  letter-spacing: 0.04em;
}
.row {
  display: flex;
  gap: 8px;
  align-items: end;
}
.row label {
  flex: 1;
}
label {
  display: grid;
  gap: 4px;
  font-size: 13.5px;
  font-weight: 560;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  min-height: 40px;
  align-items: center;
  border-bottom: 1px solid var(--hair-2);
}
</style>
