<script setup lang="ts">
import { nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Schemas } from '@/shared/api/client'
import AppPage from '@/shared/AppPage.vue'
import FoldAway from '@/shared/FoldAway.vue'
import PickOne from '@/shared/PickOne.vue'
import AsLastTime from './AsLastTime.vue'
import CardPart from './CardPart.vue'
import VehicleForm from './VehicleForm.vue'
import VehiclePick from './VehiclePick.vue'
import { useStart } from './useStart'
import WhoPart from './WhoPart.vue'

const router = useRouter()
const route = useRoute()
const job = route.name === 'job-start' ? String(route.params.id) : ''
const s = useStart(job, String(route.query.vehicle ?? ''))
const {
  form,
  vehicles,
  offered,
  search,
  all,
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
const { way, asLast, current, chosen, byHand } = s.my
const otherwise = ref(false)
const editing = ref<'' | 'new' | 'this'>('')
const says = useTemplateRef<HTMLElement>('says')

onMounted(async () => {
  await s.load()
  if (loaded.value && (vehicles.value.length === 0 || route.query.engine)) editing.value = 'new'
})

function pick(id: string) {
  s.choose(id)
  editing.value = ''
  otherwise.value = false
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

// What was chosen leads on: the next thing comes into view by itself.
const last = useTemplateRef<{ $el: HTMLElement }>('last')
watch(asLast, async (now) => {
  await nextTick()
  if (now) last.value?.$el.scrollIntoView?.({ block: 'nearest' })
})

async function start(asLast = false) {
  const id = await s.start(asLast)
  if (id) return router.push(`/jobs/${id}`)
  await nextTick()
  says.value?.scrollIntoView({ block: 'center' })
}
</script>

<template>
  <AppPage
    :title="job ? 'Correct the job' : 'Start a job'"
    :back="job ? 'Bench' : 'On the go'"
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
        <VehiclePick
          v-model:search="search"
          v-model:all="all"
          :chosen="form.vehicle"
          :offered="offered"
          :total="vehicles.length"
          :many="vehicles.length > s.many"
          :going="s.going"
          @pick="pick"
        />
        <div class="d-flex flex-wrap ga-2">
          <VBtn :aria-expanded="editing === 'new'" @click="editing = 'new'"> Another vehicle… </VBtn>
          <VBtn v-if="vehicle" :aria-expanded="editing === 'this'" @click="editing = editing === 'this' ? '' : 'this'">
            Correct {{ vehicle.name }}
          </VBtn>
        </div>
        <VehicleForm
          v-if="editing === 'new' || (editing === 'this' && vehicle)"
          :key="editing + form.vehicle"
          :engines="engines"
          :engine-made="String(route.query.engine ?? '')"
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
      <section v-if="engine?.variants.length" class="d-grid ga-2">
        <span class="quiet fs-15 d-block" aria-hidden="true">Variant of the engine</span>
        <PickOne
          v-slot="{ option: v }"
          v-model="form.variant"
          label="Variant of the engine"
          :options="[{ value: '', says: '' }, ...engine.variants.map((v) => ({ value: v.name, says: v.says }))]"
          tiles
          @update:model-value="byHand('variant')"
        >
          <b>{{ v.value || 'As its sheet says' }}</b><span class="quiet">{{ v.says }}</span>
        </PickOne>
      </section>
      <section v-if="engine && way?.names.length && !job" class="d-grid ga-2">
        <span class="quiet fs-15 d-block" aria-hidden="true">Who does it</span>
        <PickOne
          v-model="form.mechanic"
          label="Who does it"
          :options="way.names.map((n) => ({ value: n, title: n }))"
          small
        />
      </section>
      <AsLastTime
        v-if="asLast && vehicle"
        ref="last"
        v-model:odometer="form.odometer"
        v-model:why="form.odometerWhy"
        :way="asLast"
        :vehicle="vehicle"
        :set="sets.find((g) => g.id === form.set)?.name ?? ''"
        :missing="missing"
        :starting="s.starting.value || !current"
        :backwards="backwards"
        @start="start(true)"
        @slip="slipped = $event"
      />
      <VBtn v-if="asLast && !otherwise" class="justify-self-start" @click="otherwise = true">Otherwise…</VBtn>
      <section v-if="engine && (!asLast || otherwise)" class="d-grid ga-3">
        <h2 class="d-flex align-center ga-3 fs-26"><i class="d-grid place-center brass fs-20">2</i> Clearances</h2>
        <p v-if="way?.card_asked && !chosen.card" class="caution ps-3">{{ way.card_asked }}</p>
        <CardPart
          v-model:form="form"
          :engine="engine"
          :cards="cards"
          :feel-fault="Boolean(faults.feel_mm)"
          :feel-why="way?.feel_mm !== undefined && form.feel === String(way.feel_mm) ? way.feel_says : ''"
          :rule-why="form.rule === 'one_leaf' ? (way?.rule_why ?? '') : ''"
          @by-hand="byHand"
        />
      </section>
      <WhoPart
        v-if="engine && (!asLast || otherwise)"
        v-model:form="form"
        :sets="sets"
        :gone="way?.gone ?? []"
        :faults="faults"
        :vehicle="vehicle"
        :backwards="backwards"
        @by-hand="byHand"
        @slip="slipped = $event"
        @stored="s.takeSet"
      />
      <div ref="says">
        <VAlert v-if="trouble">{{ [trouble, ...Object.values(faults)].join(' ') }}</VAlert>
        <p v-else-if="missing && !(asLast && !otherwise)" class="quiet" role="status">{{ missing }}</p>
      </div>
      <VBtn
        v-if="!asLast || otherwise"
        class="go justify-self-start fs-24"
        :variant="asLast ? 'outlined' : 'flat'"
        :disabled="missing !== '' || s.starting.value"
        @click="start()"
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

.caution {
  border-left: 6px solid var(--undecided);
}

.go {
  min-width: 320px;
  min-height: 72px;
}
</style>
