<script setup lang="ts">
import { computed, onErrorCaptured, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useQueryClient } from '@tanstack/vue-query'

import { useEventListener, useIntervalFn } from '@vueuse/core'

import { api, SIGNED_OUT, trouble, unwrap } from './api/client'
import { useSession, useSessionChange, useSite } from './api/queries'
import WaitingSteps from './jobs/WaitingSteps.vue'
import KeysHelp from './places/KeysHelp.vue'
import SettingsSlip from './places/SettingsSlip.vue'
import { inSystem, swapUnits } from './settings'
import { useKeys } from './useKeys'

const route = useRoute()
const router = useRouter()
const { data: session, error, refetch, isFetching } = useSession()
const site = useSite()
const settingsOpen = ref(false)
const keysOpen = ref(false)
const broken = ref('')
const signedIn = computed(() => Boolean(session.value?.person_id && !session.value.must))
const leave = useSessionChange<void>(() => unwrap(api.DELETE('/api/session')))

watch(
  [session, () => route.path],
  () => {
    if (!session.value) return
    if (!signedIn.value && route.path !== '/sign-in')
      void router.replace({ path: '/sign-in', query: { to: route.fullPath } })
    if (signedIn.value && route.path === '/sign-in')
      void router.replace(typeof route.query.to === 'string' ? route.query.to : '/floor')
  },
  { immediate: true },
)
useEventListener(window, SIGNED_OUT, () => void refetch())
useKeys({ u: swapUnits, '?': () => (keysOpen.value = true) })
onErrorCaptured((problem) => {
  broken.value = problem.message
  return false
})
/** While there is trouble the server is asked now and then; once it is well, what failed is asked again. */
const client = useQueryClient()
useIntervalFn(() => {
  if (!trouble.value) return
  // Not ready for want of room still answers: what is asked then is worth asking.
  fetch('/api/health')
    .then((answer) => answer.json())
    .then(
      (said) => {
        if (said.database !== 'answers') return
        trouble.value = ''
        void client.refetchQueries({ predicate: (query) => query.state.status === 'error' })
      },
      () => undefined,
    )
}, 3000)
const ready = computed(() => session.value && (signedIn.value || route.path === '/sign-in'))
</script>

<template>
  <div v-if="error && !session" class="centre">
    <div class="stack">
      <h1>No answer just now</h1>
      <p>{{ error.message }}</p>
      <p class="soft">Check that Tuyere is running and that this device reaches it.</p>
      <el-button type="primary" :loading="isFetching" @click="refetch()">Try again</el-button>
    </div>
  </div>
  <div v-else-if="ready" class="shell" :class="{ alone: !signedIn }">
    <nav v-if="signedIn" class="rail no-print" aria-label="Places">
      <span class="maker" aria-hidden="true">
        <svg viewBox="0 0 40 24">
          <path
            d="M2 7h13l16 4v3l-16 4H2z"
            fill="none"
            stroke="currentColor"
            stroke-width="1.8"
            stroke-linejoin="round"
          />
          <path d="M33 12.5h6" stroke="var(--ember)" stroke-width="3" />
        </svg>
        <b>Tuyere</b>
      </span>
      <router-link to="/floor" class="place" :class="{ here: !route.path.startsWith('/bench') }">
        <svg viewBox="0 0 24 24" aria-hidden="true"><path d="M3 20V9l6 4V9l6 4V5h6v15z M7 20v-4h3v4" /></svg>
        Floor
      </router-link>
      <router-link to="/bench" class="place" :class="{ here: route.path.startsWith('/bench') }">
        <svg viewBox="0 0 24 24" aria-hidden="true"><path d="M2 10h20v3H2z M5 13v7 M19 13v7 M9 10V5h6v5" /></svg>
        Bench
      </router-link>
      <span class="grow" />
      <button type="button" class="place bare" title="Swap inches and millimetres (u)" @click="swapUnits">
        <span class="units" aria-hidden="true">{{ inSystem({ us: 'in lbf', si: 'mm N' }) }}</span>
        <span>Units</span>
      </button>
      <button type="button" class="place bare" @click="settingsOpen = true">
        <svg viewBox="0 0 24 24" aria-hidden="true"><path d="M4 7h9 M17 7h3 M4 17h3 M11 17h9 M15 5v4 M9 15v4" /></svg>
        Settings
      </button>
    </nav>
    <main>
      <div v-if="trouble" class="broken" role="status">{{ trouble }}</div>
      <div v-if="broken" class="broken" role="alert">
        Something on this page broke ({{ broken }}). What you typed is kept on this device.
        <button type="button" class="bare" @click="router.go(0)"><u>Reload</u></button>
      </div>
      <WaitingSteps :key="session?.person_id ?? ''" />
      <router-view :key="session?.person_id ?? ''" />
    </main>
    <SettingsSlip
      v-model="settingsOpen"
      :name="session?.name ?? ''"
      :site="site"
      @leave="leave.mutate()"
      @keys="keysOpen = true"
    />
    <KeysHelp v-model="keysOpen" />
  </div>
  <div v-else class="centre soft">One moment…</div>
</template>

<style scoped>
.shell {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr);
  height: 100%;
}
.shell.alone {
  grid-template-columns: minmax(0, 1fr);
}
main {
  min-width: 0;
  min-height: 0;
  overflow: auto;
  height: 100%;
}
.rail {
  display: flex;
  flex-direction: column;
  align-items: stretch;
  gap: 4px;
  padding: 12px 0;
  border-right: 1px solid var(--hair);
  background: var(--sheet);
}
.maker {
  display: grid;
  justify-items: center;
  padding-bottom: 14px;
}
.maker svg {
  width: 44px;
}
.maker b {
  font-stretch: 72%;
  font-size: 15px;
  letter-spacing: 0.02em;
}
.place {
  display: grid;
  justify-items: center;
  gap: 2px;
  padding: 9px 2px;
  color: var(--ink-2);
  text-decoration: none;
  font-size: 13px;
  font-stretch: 78%;
  text-align: center;
  border-left: 3px solid transparent;
}
.place.here {
  color: var(--ink);
  border-left-color: var(--ember);
  font-weight: 620;
}
.place svg {
  width: 24px;
  height: 24px;
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.6;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.units {
  font-weight: 640;
  font-size: 14px;
  color: var(--ink);
  line-height: 24px;
}
.grow {
  flex: 1;
}
.centre {
  height: 100%;
  display: grid;
  place-items: center;
  padding: 24px;
}
.broken {
  padding: 10px 16px;
  background: var(--ember-tint);
}
@media (max-width: 760px) {
  .shell {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(0, 1fr) 58px;
  }
  .shell.alone {
    grid-template-rows: minmax(0, 1fr);
  }
  .rail {
    grid-row: 2;
    flex-direction: row;
    padding: 0 4px;
    border-right: 0;
    border-top: 1px solid var(--hair);
    align-items: center;
    padding-bottom: env(safe-area-inset-bottom);
  }
  .rail .maker {
    display: none;
  }
  .place {
    flex: 1;
    padding: 4px;
    border-left: 0;
    border-top: 3px solid transparent;
  }
  .place.here {
    border-top-color: var(--ember);
  }
  .grow {
    display: none;
  }
  main {
    grid-row: 1;
  }
}
@media print {
  .shell {
    display: block;
    height: auto;
  }
  main {
    overflow: visible;
    height: auto;
  }
}
</style>
