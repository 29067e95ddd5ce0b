<script setup lang="ts">
import NumberField from '@/shared/NumberField.vue'
import { nextTick, onMounted, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Schemas } from '@/shared/api/client'
import AppPage from '@/shared/AppPage.vue'
import FoldAway from '@/shared/FoldAway.vue'
import PickOne from '@/shared/PickOne.vue'
import CardPart from './CardPart.vue'
import OdometerWhy from './OdometerWhy.vue'
import VehicleForm from './VehicleForm.vue'
import { counter } from '@/shared/mine'
import { useStart } from './useStart'

const router = useRouter()
const route = useRoute()
const job = route.name === 'job-start' ? String(route.params.id) : ''
const s = useStart(job, String(route.query.vehicle ?? ''))
const {
  form,
  vehicles,
  off,
  engines,
  sets,
  loaded,
  trouble,
  faults,
  vehicle,
  engine,
  cards,
  missing,
  backwards,
  slipped,
} = s
const editing = ref<'' | 'new' | 'this'>('')
const says = useTemplateRef<HTMLElement>('says')

onMounted(async () => {
  await s.load()
  if (loaded.value && vehicles.value.length === 0) editing.value = 'new'
})

const reasons = ['Distance interval', 'Ticking when warm', 'Rough idle', 'After a new cam has run in', 'Belt is due']
function pick(id: string) {
  s.choose(id)
  editing.value = ''
}

async function stored(v: Schemas['Vehicle']) {
  editing.value = ''
  await s.load()
  s.choose(v.id)
}

async function remove() {
  if (vehicle.value) await s.putOnBoard(vehicle.value, false)
  editing.value = ''
}

async function start() {
  const id = await s.start()
  if (id) return router.push(`/jobs/${id}`)
  await nextTick()
  says.value?.scrollIntoView({ block: 'center' })
}
</script>

<template>
  <AppPage
    :title="job ? 'Correct the job' : 'Start a job'"
    :back="job ? 'Bench' : 'Board'"
    :back-to="job ? `/jobs/${job}` : '/'"
    :ready="loaded"
    :trouble="trouble"
    failed="This page could not be filled."
    waiting="Reading vehicles and engines…"
    @again="s.load"
  >
    <div class="start d-grid ga-7">
      <section class="d-grid ga-3">
        <h2 class="d-flex align-center ga-3 fs-26"><i class="d-grid place-center brass fs-20">1</i> Vehicle</h2>
        <PickOne
          v-slot="{ option: { v } }"
          :model-value="form.vehicle"
          label="Vehicle"
          :options="vehicles.map((v) => ({ value: v.id, v }))"
          tiles
          @update:model-value="pick"
        >
          <b>{{ v.name }}</b><span class="quiet">{{ v.plate }} · {{ v.engine_name }}</span>
          <small v-if="s.going(v)" class="differs undecided fs-15">has a job on the go</small>
        </PickOne>
        <div class="d-flex flex-wrap ga-2">
          <VBtn :aria-expanded="editing === 'new'" @click="editing = 'new'">
            Another vehicle, or import its engine sheet
          </VBtn>
          <VBtn v-if="vehicle" :aria-expanded="editing === 'this'" @click="editing = editing === 'this' ? '' : 'this'">
            Correct {{ vehicle.name }}
          </VBtn>
        </div>
        <VehicleForm
          v-if="editing === 'new' || (editing === 'this' && vehicle)"
          :key="editing + form.vehicle"
          :engines="engines"
          :others="s.every.value"
          :vehicle="editing === 'this' ? vehicle : undefined"
          @stored="stored"
          @imported="s.load"
          @remove="remove"
          @cancel="editing = ''"
        />
        <FoldAway v-if="off.length" :title="`Taken off the list: ${off.length}`">
          <div class="d-flex flex-wrap ga-2">
            <VBtn v-for="v in off" :key="v.id" @click="s.putOnBoard(v, true)"> Restore {{ v.name }} </VBtn>
          </div>
        </FoldAway>
      </section>
      <section v-if="engine" class="d-grid ga-3">
        <h2 class="d-flex align-center ga-3 fs-26"><i class="d-grid place-center brass fs-20">2</i> Clearances</h2>
        <CardPart v-model:form="form" :engine="engine" :cards="cards" :feel-fault="Boolean(faults.feel_mm)" />
      </section>
      <section v-if="engine" class="d-grid ga-3">
        <h2 class="d-flex align-center ga-3 fs-26">
          <i class="d-grid place-center brass fs-20">3</i> Feelers, mechanic, reason
        </h2>
        <PickOne
          v-slot="{ option: { g } }"
          v-model="form.set"
          label="Gauge set"
          :options="sets.map((g) => ({ value: g.id, g }))"
          tiles
        >
          <b>{{ g.name }}</b><span class="quiet">{{ g.leaves }} leaves</span>
        </PickOne>
        <div class="fields fits-240 d-grid ga-3 mt-2">
          <VTextField v-model="form.mechanic" label="Mechanic" maxlength="100" :error-messages="faults.mechanic" />
          <NumberField
            v-model="form.odometer"
            :label="vehicle?.counts === 'h' ? 'Running hours' : 'Odometer'"
            :of="counter(vehicle?.counts)"
            whole
            :error="Boolean(faults.odometer_km || faults.hours)"
            :faults="faults.odometer_km || faults.hours"
            @slip="slipped = $event"
          />
        </div>
        <OdometerWhy v-if="backwards" v-model="form.odometerWhy" :showed="backwards" />
        <PickOne
          v-model="form.reason"
          label="Reason"
          :options="reasons.map((r) => ({ value: r, title: r }))"
          small
          may-be-none
        />
      </section>
      <div ref="says">
        <VAlert v-if="trouble">{{ [trouble, ...Object.values(faults)].join(' ') }}</VAlert>
        <p v-else-if="missing" class="quiet" role="status">{{ missing }}</p>
      </div>
      <VBtn
        class="go justify-self-start fs-24"
        variant="flat"
        :disabled="missing !== '' || s.starting.value"
        @click="start"
      >
        {{ job ? 'Save the correction' : 'Start the job' }}
      </VBtn>
    </div>
  </AppPage>
</template>

<style scoped>
h2 i {
  width: 38px;
  height: 38px;
  border: 3px solid var(--brass);
  border-radius: 50%;
  font-style: normal;
}

.go {
  min-width: 320px;
  min-height: 72px;
}
</style>
