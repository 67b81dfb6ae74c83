<script setup lang="ts">
import { computed, ref } from 'vue'

import { api, type DriveOut, unwrap } from '../../api/client'
import { useSession } from '../../api/queries'

/** Simulated instruments of the demo plant: point one at the machine and take what it shows, as a person would type it. */
const { drive, to } = defineProps<{ drive: DriveOut; to: string }>()
const emit = defineEmits<{ take: [field: string, text: string, unit: string] }>()
const { data: session } = useSession()
const demo = computed(() => (session.value?.demo_people.length ?? 0) > 0)
type Device = 'tachometer' | 'clamp meter' | 'manometer' | 'strobe'
type Target = 'driver shaft' | 'driven shaft' | 'motor lead' | 'plenum'
const POINTS: { device: Device; target: Target; field: string; label: string }[] = [
  { device: 'tachometer', target: 'driver shaft', field: 'tach_driver', label: 'Tachometer, driver shaft' },
  { device: 'tachometer', target: 'driven shaft', field: 'tach_driven', label: 'Tachometer, driven shaft' },
  { device: 'clamp meter', target: 'motor lead', field: 'amps', label: 'Clamp meter, one lead' },
  { device: 'manometer', target: 'plenum', field: 'machine_pressure', label: 'Manometer, plenum' },
]
const shown = ref<{ text: string; unit: string; word: string; label: string } | null>(null)
const trouble = ref('')
const flashes = ref(2400)
const under = ref<Target>('driven shaft')

async function point(device: Device, target: Target, label: string, rate?: number) {
  trouble.value = ''
  try {
    const found = await unwrap(
      api.POST('/api/drives/{drive_id}/instruments', {
        params: { path: { drive_id: drive.id } },
        body: { device, target, flashes_per_minute: rate ?? null },
      }),
    )
    shown.value = { ...found, label }
    return found
  } catch (error) {
    trouble.value = (error as Error).message
    return null
  }
}
async function read(p: (typeof POINTS)[number]): Promise<void> {
  const found = await point(p.device, p.target, p.label)
  if (found) emit('take', p.field, found.text, found.unit)
}
const strobe = () => point('strobe', under.value, `Strobe, ${under.value}`, flashes.value)
function takeStrobe(): void {
  emit('take', under.value === 'driver shaft' ? 'tach_driver' : 'tach_driven', String(flashes.value), 'rpm')
}
</script>

<template>
  <details v-if="demo" class="rack no-print">
    <summary>Simulated instruments, into {{ to }}</summary>
    <p class="row">
      <el-button v-for="p in POINTS" :key="p.label" @click="read(p)">{{ p.label }}</el-button>
    </p>
    <div class="strobe">
      <label
        >Strobe on the
        <select v-model="under">
          <option>driven shaft</option>
          <option>driver shaft</option>
        </select></label
      >
      <label
        >flashes a minute
        <input v-model.number="flashes" type="number" min="30" max="20000" step="1" @change="strobe" />
      </label>
      <el-button @click="strobe">Look</el-button>
      <el-button @click="takeStrobe">Take it</el-button>
    </div>
    <p class="small soft">
      Start the strobe high and come down: the highest rate with one still image is the speed. One image also stands
      still at a half and a third of it, two at twice.
    </p>
    <p v-if="shown" role="status">
      {{ shown.label }}: <b v-if="shown.text">{{ shown.text }} {{ shown.unit }}</b> {{ shown.word }}
    </p>
    <p v-if="trouble" class="ember small" role="alert">{{ trouble }}</p>
  </details>
</template>

<style scoped>
.rack {
  border: 1px dashed var(--hair);
  border-radius: 3px;
  padding: 4px 12px 10px;
}
summary {
  cursor: pointer;
  min-height: 40px;
  display: flex;
  align-items: center;
  font-weight: 600;
}
.row,
.strobe {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.row :deep(.el-button) {
  margin: 0;
}
.strobe {
  align-items: end;
  padding: 8px 0;
}
.strobe label {
  display: grid;
  font-size: 13px;
  gap: 2px;
}
.strobe input,
.strobe select {
  min-height: 40px;
  width: 110px;
  border: 1px solid var(--hair);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 8px;
  font: inherit;
}
</style>
