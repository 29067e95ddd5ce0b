<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { answered, api, newID, Refused, type Schemas } from '@/shared/api/client'
import { putSheet } from '@/shared/api/sheets'
import PickFile from '@/shared/PickFile.vue'
import NumberField from '@/shared/NumberField.vue'
import FaultList from '@/shared/FaultList.vue'
import PickOne from '@/shared/PickOne.vue'
import { counter, meterName, mine, sent, shown } from '@/shared/mine'
import { choices } from '@/shared/words'
import { useDraft } from '@/shared/useDraft'
import EngineInPlace from './EngineInPlace.vue'
import OdometerWhy from './OdometerWhy.vue'
import { useEngineInPlace } from './useEngineInPlace'

type Vehicle = Schemas['Vehicle']

/** A vehicle to enter, with an engine made in place where none of the library's is its own; or one to correct. */
const props = defineProps<{
  engines: Schemas['Engine'][]
  others: Vehicle[]
  vehicle?: Vehicle
  /** The engine that was just described for it. */ engineMade?: string
}>()
const emit = defineEmits<{ stored: [vehicle: Vehicle]; imported: []; remove: []; cancel: [] }>()

const name = ref(props.vehicle?.name ?? '')
const plate = ref(props.vehicle?.plate ?? '')
const counts = ref(props.vehicle?.counts ?? 'km')
const meter = ref(shown(props.vehicle ?? {}))
const counters = choices({ km: 'Distance', h: 'Running hours' })
const slipped = ref('')
const why = ref('')
/** What the counter showed, where it shows less now: that has its reason, or is a slip. */
const backwards = computed(() => {
  const last = (props.vehicle?.counts === counts.value && shown(props.vehicle)) || 0
  return meter.value && meter.value < last ? mine(counter(counts.value)).say(last) : ''
})
const engine = ref((props.vehicle?.engine_id ?? props.engineMade) || (props.engines[0]?.id ?? ''))
const making = useEngineInPlace()
const make = ref(!props.engines.length)
// What was typed of a new one stays for as long as the tab is open, over the whole editor and back.
const draft = useDraft(
  'vehicle',
  () => {
    const now = { name: name.value, plate: plate.value, counts: counts.value, meter: meter.value }
    if (props.vehicle || !(name.value || plate.value || making.form.value.cylinders)) return null
    return { ...now, make: make.value, form: making.form.value }
  },
  (kept) => {
    name.value = kept.name
    plate.value = kept.plate
    counts.value = kept.counts
    meter.value = kept.meter
    make.value = kept.make && !props.engineMade
    making.form.value = kept.form
  },
)
if (!props.vehicle) draft.restore()
const faults = ref<{ location: string; message: string }[]>([])
const trouble = ref('')
watch(
  () => props.engines,
  (list) => (engine.value ||= list[0]?.id ?? ''),
)
const missing = computed(() => {
  if (!name.value.trim()) return 'Give it a name that the workshop knows it by.'
  if (make.value && making.missing.value) return making.missing.value
  if (!make.value && !engine.value) return 'Choose its engine.'
  if (slipped.value) return `The ${meterName(counts.value)} is a whole number, or empty.`
  if (backwards.value && !why.value.trim()) return `Say why the ${meterName(counts.value)} shows less than last time.`
  return ''
})
const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase()
const twice = computed(() =>
  props.others.find(
    (v) =>
      v.id !== props.vehicle?.id &&
      ((plate.value.trim() && same(v.plate, plate.value)) || (same(v.name, name.value) && same(v.plate, plate.value))),
  ),
)
const offered = computed(() =>
  props.engines.map((e) => ({ title: `${e.name} (${e.cylinders} cylinders, ${e.valves} valves)`, value: e.id })),
)

function failed(e: unknown) {
  trouble.value = (e as Error).message
  faults.value = e instanceof Refused ? e.faults : []
}

async function take(file: File) {
  trouble.value = ''
  faults.value = []
  try {
    const id = newID()
    await putSheet(id, await file.text())
    engine.value = id
    make.value = false
    emit('imported')
  } catch (e) {
    failed(e)
  }
}

let id = newID()
const storing = ref(false)
async function store() {
  if (storing.value) return
  trouble.value = ''
  const body = {
    name: name.value.trim(),
    plate: plate.value.trim(),
    counts: counts.value,
    ...sent(counts.value, meter.value),
    engine_id: engine.value,
    ...(backwards.value ? { odometer_why: why.value.trim() } : {}),
  }
  storing.value = true
  try {
    if (make.value) body.engine_id = await making.store()
    const stored = props.vehicle
      ? await answered(
          api.PUT('/api/v1/vehicles/{id}', {
            params: { path: { id: props.vehicle.id }, query: { replaces: props.vehicle.version } },
            body,
          }),
        )
      : await answered(api.POST('/api/v1/vehicles', { body: { id, ...body } }))
    id = newID()
    if (!props.vehicle) draft.drop()
    making.clear()
    emit('stored', stored)
  } catch (e) {
    failed(e)
  } finally {
    storing.value = false
  }
}
</script>

<template>
  <div class="new fits-240 d-grid ga-3 pa-4 edged rounded">
    <VTextField v-model="name" label="Name in the workshop" maxlength="100" hide-details />
    <VTextField v-model="plate" label="Plate or number" maxlength="30" hide-details />
    <div>
      <span class="quiet fs-15 d-block" aria-hidden="true">What it counts</span>
      <PickOne v-model="counts" label="What it counts" :options="counters" small />
    </div>
    <NumberField
      v-model="meter"
      :label="counts === 'h' ? 'Running hours' : 'Odometer'"
      :of="counter(counts)"
      whole
      @slip="slipped = $event"
    />
    <VSelect v-if="!make" v-model="engine" :items="offered" label="Engine" hide-details />
    <section v-else class="all all-columns d-grid ga-3" aria-label="Its engine">
      <h3 class="fs-20">Its engine</h3>
      <EngineInPlace :making="making" />
    </section>
    <OdometerWhy v-if="backwards" v-model="why" class="all all-columns" :showed="backwards" />
    <p v-if="vehicle" class="quiet all all-columns">Jobs that were started keep the engine they began with.</p>
    <VAlert v-if="twice" class="all all-columns" role="status">
      {{ twice.name }}, {{ twice.plate || 'no plate' }}, is on the list already. Is it another one?
    </VAlert>
    <FaultList v-if="trouble" class="all all-columns" :title="trouble" :faults="faults" after="Nothing was saved." />
    <div class="do all all-columns d-flex flex-wrap align-center ga-2">
      <VBtn v-if="!make" @click="make = true">Make its engine here…</VBtn>
      <VBtn v-else-if="engines.length" @click="make = false">Choose an engine of the library</VBtn>
      <PickFile label="Import an engine sheet" accept=".json,application/json" @picked="take" />
      <template v-if="vehicle">
        <VBtn @click="$emit('remove')">Remove it from the list</VBtn>
        <VBtn @click="$emit('cancel')">Cancel</VBtn>
      </template>
      <VBtn variant="flat" :disabled="missing !== '' || storing" @click="store">
        {{ vehicle ? 'Save the vehicle' : 'Add the vehicle' }}
      </VBtn>
      <span v-if="missing" class="quiet" role="status">{{ missing }}</span>
    </div>
  </div>
</template>
