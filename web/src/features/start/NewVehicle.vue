<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { answered, api, newID, Refused, type Schemas } from '@/shared/api/client'
import { putSheet } from '@/shared/api/sheets'
import FaultList from '@/shared/FaultList.vue'

const props = defineProps<{ engines: Schemas['Engine'][] }>()
const emit = defineEmits<{ added: [vehicle: Schemas['Vehicle']]; imported: [] }>()

const name = ref('')
const plate = ref('')
const engine = ref(props.engines[0]?.id ?? '')
const faults = ref<{ location: string; message: string }[]>([])
const trouble = ref('')
watch(
  () => props.engines,
  (list) => (engine.value ||= list[0]?.id ?? ''),
)
const ready = computed(() => name.value.trim() && engine.value)
const choices = computed(() =>
  props.engines.map((e) => ({ title: `${e.name} (${e.cylinders} cylinders, ${e.valves} valves)`, value: e.id })),
)

function failed(e: unknown) {
  trouble.value = (e as Error).message
  faults.value = e instanceof Refused ? e.faults : []
}

async function take(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  trouble.value = ''
  faults.value = []
  try {
    const id = newID()
    await putSheet(id, await file.text())
    engine.value = id
    emit('imported')
  } catch (e) {
    failed(e)
  } finally {
    input.value = ''
  }
}

async function add() {
  trouble.value = ''
  try {
    const body = {
      id: newID(),
      name: name.value.trim(),
      plate: plate.value.trim(),
      odometer_km: 0,
      engine_id: engine.value,
    }
    emit('added', await answered(api.POST('/api/v1/vehicles', { body })))
  } catch (e) {
    failed(e)
  }
}
</script>

<template>
  <div class="new">
    <VTextField v-model="name" label="Name the workshop knows it by" maxlength="100" hide-details />
    <VTextField v-model="plate" label="Plate or number" maxlength="30" hide-details />
    <VSelect
      v-model="engine"
      :items="choices"
      label="Engine"
      variant="outlined"
      hide-details
      no-data-text="No engine is stored yet: import a sheet."
    />
    <label class="mx-btn mx-file"
      >Import an engine sheet<input
        type="file"
        accept=".json,application/json"
        aria-label="Import an engine sheet"
        @change="take"
    /></label>
    <FaultList v-if="trouble" class="trouble" :title="trouble" :faults="faults" after="Nothing was stored." />
    <button class="mx-btn primary" type="button" :disabled="!ready" @click="add">Add the vehicle</button>
  </div>
</template>

<style scoped>
.new {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 12px;
  padding: 18px;
  border: 2px solid var(--line);
  border-radius: 6px;
}

.trouble {
  grid-column: 1 / -1;
}
</style>
