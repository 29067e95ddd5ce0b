<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { answered, api, type Schemas } from '@/shared/api/client'
import { reads, useRead } from '@/shared/api/reads'
import AppPage from '@/shared/AppPage.vue'
import { people } from '@/shared/session'
import NumberField from '@/shared/NumberField.vue'
import { counter, mine, shown } from '@/shared/mine'
import { day } from '@/shared/units'
import OwnCards from './OwnCards.vue'
import VisitList from './VisitList.vue'
import WearPart from './WearPart.vue'

const id = String(useRoute().params.id)
const { data, trouble, again } = useRead(reads.history(id))
const counts = computed(() => data.value?.vehicle.counts)
const run = (n: number) => mine(counter(counts.value)).say(Math.floor(n))
/** An interval as it is typed; one with a day is due once, counted from there. */
type Typed = { run?: number; months?: number; weeks?: number; from?: number; once_from?: string; source: string }
const intervals = ref<Typed[] | null>(null)
const often = (i: Schemas['Interval']) =>
  [i.hours || i.km ? run(i.hours || i.km) : '', i.months ? `${i.months} months` : '', i.weeks ? `${i.weeks} weeks` : '']
    .filter(Boolean)
    .join(' or ')
/** The usual check of a new cam: some weeks after it was fitted. */
function newCam() {
  const today = new Date().toLocaleDateString('sv')
  const from = shown(data.value?.vehicle ?? {})
  intervals.value!.push({ source: 'new cam', once_from: today, weeks: 4, from })
}
const said = ref('')
function edit() {
  intervals.value = (data.value?.intervals ?? []).map(({ km, hours, from_km, from_hours, ...i }) => ({
    ...i,
    run: hours || km || undefined,
    from: from_hours || from_km,
  }))
  if (!intervals.value.length) intervals.value.push({ source: 'maker’s book' })
}
async function keep() {
  said.value = ''
  try {
    await answered(
      api.PUT('/api/v1/vehicles/{id}/intervals', {
        params: { path: { id } },
        body: {
          intervals: intervals
            .value!.filter((i) => i.run || i.months || i.weeks)
            .map(({ run, from, ...i }) => ({
              ...i,
              km: 0,
              months: i.months ?? 0,
              source: i.source.trim() || 'not said',
              ...(counts.value === 'h' ? { hours: run, from_hours: from } : { km: run ?? 0, from_km: from }),
            })),
        },
      }),
    )
    intervals.value = null
    await again()
  } catch (e) {
    said.value = (e as Error).message
  }
}
</script>

<template>
  <AppPage
    :title="data?.vehicle.name ?? 'Vehicle'"
    :sub="data ? [data.vehicle.place, data.vehicle.plate, data.vehicle.engine_name].filter(Boolean).join(' · ') : ''"
    back="Vehicles"
    back-to="/vehicles"
    :ready="data !== undefined"
    :trouble="trouble"
    failed="This vehicle could not be read."
    @again="again"
  >
    <template #bar>
      <VBtn v-if="data?.due.on" size="small" :href="`/api/v1/vehicles/${id}/due.ics`">Calendar file</VBtn>
      <VBtn v-if="data && people.may('work')" variant="flat" size="small" :to="`/start?vehicle=${id}`"
        >Start a job</VBtn
      >
    </template>
    <div v-if="data" class="vehicle ga-7 d-grid">
      <VAlert v-if="data.vehicle.damaged" role="alert">{{ data.vehicle.damaged }}</VAlert>
      <VAlert v-if="data.also_at.length" role="note">
        The same plate is known elsewhere. Whether it is the same vehicle is for you to say; its visits there stand
        there.
        <RouterLink v-for="v in data.also_at" :key="v.id" class="d-block tall-44 fs-20" :to="`/vehicles/${v.id}`"
          >{{ v.place }}: {{ v.name }}, {{ v.plate }}</RouterLink
        >
      </VAlert>
      <section class="due edged-brass py-4 px-5 rounded d-grid ga-3">
        <h2 class="fs-28 lh-tight">
          <template v-if="data.due.on || shown(data.due)"
            >Next due <em v-if="data.due.on" class="brass">{{ day(data.due.on) }}</em><template
              v-if="data.due.on && shown(data.due)"
              >, about </template
            ><em v-if="shown(data.due)" class="brass">{{ run(shown(data.due)!) }}</em
            >.</template
          >
          <template v-else>No due date yet.</template>
        </h2>
        <p>{{ data.due.because }}</p>
        <p class="quiet">
          {{ counts === 'h' ? 'Running hours' : 'Odometer' }}
          {{ shown(data.vehicle) ? mine(counter(counts)).both(shown(data.vehicle)!) : '–'
          }}<template v-if="data.vehicle.odometer_why"> (put back: {{ data.vehicle.odometer_why }})</template
          ><template v-if="data.per_day">, about {{ run(Math.round(data.per_day)) }} a day</template>.
          <template v-for="j in data.open_jobs" :key="j">
            <RouterLink :to="`/jobs/${j}`">A job is open</RouterLink>.</template
          >
        </p>
        <ul v-if="data.intervals.length && !intervals" class="quiet ma-0 ps-5">
          <li v-for="i in data.intervals" :key="i.source + i.km + i.hours">
            {{
              i.once_from
                ? `Once, ${often(i)} after the ${i.source} of ${day(i.once_from)}`
                : `${often(i)}: ${i.source}`
            }}
          </li>
        </ul>
        <VBtn v-if="!intervals && people.may('keep')" size="small" class="justify-self-start" @click="edit"
          >Intervals…</VBtn
        >
        <div v-else-if="intervals" class="intervals d-grid ga-2">
          <VAlert v-if="said">{{ said }}</VAlert>
          <div v-for="(i, n) in intervals" :key="n" class="row fits-160 d-grid ga-2 align-start">
            <template v-if="i.once_from !== undefined">
              <VTextField
                v-model="i.source"
                label="Once, after the"
                maxlength="100"
                density="comfortable"
                hide-details
              />
              <VTextField v-model="i.once_from" label="fitted on" type="date" density="comfortable" hide-details />
              <NumberField v-model="i.weeks" label="After" unit="weeks" whole />
              <NumberField v-model="i.run" label="or after" :of="counter(counts)" whole />
              <NumberField
                v-model="i.from"
                :label="counts === 'h' ? 'Hours then' : 'Odometer then'"
                :of="counter(counts)"
                whole
              />
            </template>
            <template v-else>
              <NumberField v-model="i.run" label="Every" :of="counter(counts)" whole />
              <NumberField v-model="i.months" label="or every" unit="months" whole />
              <VTextField v-model="i.source" label="Source" maxlength="100" density="comfortable" hide-details />
            </template>
          </div>
          <div class="do d-flex flex-wrap ga-2">
            <VBtn size="small" @click="intervals.push({ source: '' })">Another source</VBtn>
            <VBtn size="small" @click="newCam">Once, after a new cam</VBtn>
            <VBtn size="small" @click="intervals = null">Go back</VBtn>
            <VBtn size="small" variant="flat" @click="keep">Keep</VBtn>
          </div>
        </div>
      </section>

      <WearPart v-if="data.wear.length && data.engine" :history="data" :engine="data.engine" />

      <OwnCards :history="data" @kept="again" />

      <VisitList :history="data" @kept="again" />
    </div>
  </AppPage>
</template>

<style scoped>
.vehicle {
  max-width: 1100px;
}
</style>
