<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ElMessage, ElMessageBox } from 'element-plus'
import { computed, reactive, ref } from 'vue'

import { api, unwrap } from '../api/client'
import { useSession } from '../api/queries'
import { useWrite } from '../api/useWrite'
import type { components } from '../api/schema'
import { ago } from '../words'

/** A lead sees who is at the site and where they are signed in; adds people, changes roles, hands over codes, takes leavers off. */
const { siteId } = defineProps<{ siteId: string }>()
type Role = components['schemas']['Role']
type Person = components['schemas']['PersonOut']
const ROLES: Role[] = ['viewer', 'mechanic', 'lead']
const client = useQueryClient()
const { data: session } = useSession()
const { data } = useQuery({
  queryKey: ['people', siteId],
  queryFn: () => unwrap(api.GET('/api/sites/{site_id}/people', { params: { path: { site_id: siteId } } })),
})
const form = reactive({ name: '', passphrase: '', role: 'mechanic' as Role })
// What waits to be sent is written down on the device: the passphrase is no part of it.
const { write, busy, problem } = useWrite('new-person', (body: { name: string; role: Role }, key, id) =>
  unwrap(
    api.POST('/api/sites/{site_id}/people', {
      params: { path: { site_id: siteId }, header: { 'Idempotency-Key': key } },
      body: { ...body, passphrase: form.passphrase, id },
    }),
  ),
)
const wrong = computed(() => Object.fromEntries((problem.value?.errors ?? []).map((e) => [e.field, e.detail])))
const refresh = () => client.invalidateQueries({ queryKey: ['people'] })
const sessionsOf = (p: Person) => (data.value?.sessions ?? []).filter((s) => s.person_id === p.id)
const opened = ref('')
const code = ref<{ name: string; code: string } | null>(null)

async function add(): Promise<void> {
  if (!(await write({ name: form.name, role: form.role }))) return
  form.name = form.passphrase = ''
  await refresh()
}

interface Act {
  what: 'role' | 'leave' | 'end'
  id: string
  role: Role
}
const acting = useWrite('person-act', (act: Act, key) => {
  const header = { 'Idempotency-Key': key }
  if (act.what === 'end')
    return unwrap(
      api.POST('/api/sites/{site_id}/sign-ins/{sign_in_id}/end', {
        params: { path: { site_id: siteId, sign_in_id: act.id }, header },
        body: {},
      }),
    )
  const path = { site_id: siteId, person_id: act.id }
  return act.what === 'leave'
    ? unwrap(api.POST('/api/sites/{site_id}/people/{person_id}/leave', { params: { path, header }, body: {} }))
    : unwrap(
        api.POST('/api/sites/{site_id}/people/{person_id}/role', {
          params: { path, header },
          body: { role: act.role },
        }),
      )
})
async function act(what: Act['what'], id: string, role: Role = 'viewer'): Promise<void> {
  await acting.write({ what, id, role })
  await refresh()
}
async function takeOff(p: Person): Promise<void> {
  const sure = await ElMessageBox.confirm(
    `${p.name} can no longer open this site, from this moment on. What they wrote keeps their name.`,
    `Take ${p.name} off the site?`,
    { confirmButtonText: 'Take off', cancelButtonText: 'Leave as it is' },
  ).catch(() => null)
  if (sure) await act('leave', p.id)
}
const allowing = useWrite('device', (body: { device: string; allowed: boolean }, key) =>
  unwrap(
    api.POST('/api/sites/{site_id}/devices/{device_id}', {
      params: { path: { site_id: siteId, device_id: body.device }, header: { 'Idempotency-Key': key } },
      body: { allowed: body.allowed },
    }),
  ),
)
async function allow(device: string, allowed: boolean): Promise<void> {
  await allowing.write({ device, allowed })
  await refresh()
}
const asking = useWrite('leads-factor', (body: { row_version: number; leads_factor: boolean }, key) =>
  unwrap(
    api.POST('/api/sites/{site_id}/leads-factor', {
      params: { path: { site_id: siteId }, header: { 'Idempotency-Key': key } },
      body,
    }),
  ),
)
async function ask(on: boolean): Promise<void> {
  await asking.write({ row_version: data.value!.site_version, leads_factor: on })
  await refresh()
}
const resetting = useWrite('person-reset', (person_id: string, key) =>
  unwrap(
    api.POST('/api/sites/{site_id}/people/{person_id}/reset', {
      params: { path: { site_id: siteId, person_id }, header: { 'Idempotency-Key': key } },
      body: {},
    }),
  ),
)
async function handOver(p: Person): Promise<void> {
  const answer = await resetting.write(p.id)
  if (answer) code.value = { name: p.name, code: answer.code }
  else if (resetting.problem.value) ElMessage.error(resetting.problem.value.detail)
}
</script>

<template>
  <section class="stack">
    <h3>People</h3>
    <p v-if="acting.problem.value" class="ember" role="alert">{{ acting.problem.value.detail }}</p>
    <ul>
      <li v-for="p in data?.people" :key="p.id">
        <button
          type="button"
          class="bare head"
          :aria-expanded="opened === p.id"
          @click="opened = opened === p.id ? '' : p.id"
        >
          <b>{{ p.name }}</b>
          <span class="soft small">
            {{ p.role }} · {{ p.seen_at ? `seen ${ago(p.seen_at)}` : 'never signed in' }}
          </span>
        </button>
        <div v-if="opened === p.id" class="more">
          <fieldset>
            <legend class="sr">Role of {{ p.name }}</legend>
            <el-radio-group
              :model-value="p.role"
              @update:model-value="(role: unknown) => act('role', p.id, role as Role)"
            >
              <el-radio v-for="role in ROLES" :key="role" :value="role">{{ role }}</el-radio>
            </el-radio-group>
          </fieldset>
          <p v-for="s in sessionsOf(p)" :key="s.id" class="session small">
            <span>
              {{ s.mine ? 'This device' : `Signed in at ${s.address}` }}, {{ ago(s.seen_at) }}
              <span class="soft">{{ s.device }}</span>
            </span>
            <span class="does">
              <button v-if="s.device_id" type="button" class="bare" @click="allow(s.device_id, !s.allowed)">
                <u>{{ s.allowed ? 'A shift only' : 'Stay signed in for days' }}</u>
              </button>
              <button v-if="!s.mine" type="button" class="bare" @click="act('end', s.id)"><u>End it</u></button>
            </span>
          </p>
          <p v-if="code?.name === p.name" class="code" role="status">
            One-time code for {{ p.name }}: <b>{{ code.code }}</b>
            <span class="soft small"
              >It works once, for 24 hours, under “I have a one-time code” where one signs in.</span
            >
          </p>
          <div class="row">
            <el-button size="small" :loading="resetting.busy.value" @click="handOver(p)"
              >New passphrase: a code</el-button
            >
            <el-button v-if="p.id !== session?.person_id" size="small" @click="takeOff(p)">Take off the site</el-button>
          </div>
        </div>
      </li>
    </ul>
    <p class="small soft">A session lasts a shift of 12 hours; on a device that you allow, up to 30 days.</p>
    <el-checkbox
      v-if="data"
      :model-value="data.leads_factor"
      label="Leads need a second factor"
      @update:model-value="(on: unknown) => ask(Boolean(on))"
    />
    <p v-if="asking.problem.value" class="ember small" role="alert">{{ asking.problem.value.detail }}</p>
    <form class="stack" @submit.prevent="add">
      <h4>Somebody new</h4>
      <label>
        Name
        <el-input v-model="form.name" autocomplete="off" />
        <span v-if="wrong.name" class="ember">{{ wrong.name }}</span>
      </label>
      <label>
        First passphrase, to hand over
        <el-input v-model="form.passphrase" type="password" show-password autocomplete="new-password" />
        <span v-if="wrong.passphrase" class="ember">{{ wrong.passphrase }}</span>
      </label>
      <el-radio-group v-model="form.role" aria-label="Role">
        <el-radio v-for="role in ROLES" :key="role" :value="role">{{ role }}</el-radio>
      </el-radio-group>
      <el-button native-type="submit" :loading="busy">Add</el-button>
    </form>
  </section>
</template>

<style scoped>
section {
  border-top: 1px solid var(--hair);
  padding-top: 14px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-bottom: 1px solid var(--hair-2);
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
:deep(.el-radio) {
  flex-wrap: nowrap;
  margin-right: 16px;
}
.head {
  display: grid;
  width: 100%;
  text-align: left;
  padding: 8px 0;
  min-height: 44px;
}
.more {
  display: grid;
  gap: 8px;
  padding: 0 0 12px;
}
.session {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
.does {
  display: grid;
  justify-items: end;
  gap: 4px;
}
.session .soft {
  display: block;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  max-width: 220px;
}
.code {
  background: var(--ember-tint);
  padding: 8px 10px;
  display: grid;
  gap: 2px;
}
.code b {
  font-size: 20px;
  letter-spacing: 0.06em;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.el-button + .el-button {
  margin-left: 0;
}
/* Radios and check boxes are labels too, and keep their words beside them. */
label:not([class]) {
  display: grid;
  gap: 4px;
  font-size: 13.5px;
  font-weight: 560;
}
</style>
