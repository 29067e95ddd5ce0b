<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref } from 'vue'
import { reads, useRead } from '@/shared/api/reads'
import AppPage from '@/shared/AppPage.vue'
import { people } from '@/shared/session'
import { day } from '@/shared/units'
import { counter, mine, shown } from '@/shared/mine'
import StateNote from '@/shared/StateNote.vue'

/** Every vehicle of the workshop, found by name, plate or engine, and those that are due first. */
const typed = ref('')
const search = refDebounced(typed, 200)
const step = 50
const many = ref(step)
const { data, trouble, again } = useRead(computed(() => reads.vehiclesFound(search.value.trim(), many.value)))
const { data: due } = useRead(reads.due())
</script>

<template>
  <AppPage
    title="Vehicles"
    :ready="data !== undefined"
    :trouble="trouble"
    failed="The vehicles could not be read."
    @again="again"
  >
    <template #bar>
      <VBtn v-if="due?.length" size="small" href="/api/v1/due.ics">Calendar</VBtn>
      <VBtn v-if="people.may('work')" variant="flat" size="small" to="/start">Start a job</VBtn>
    </template>
    <div v-if="data" class="vehicles ga-6 d-grid">
      <VTextField v-model="typed" label="Name, plate or engine" type="search" hide-details clearable autofocus />
      <section v-if="due?.length && !search" class="d-grid ga-2">
        <h2 class="fs-24">Due next</h2>
        <RouterLink
          v-for="d in due"
          :key="d.vehicle_id"
          class="row due bar-brass d-grid two-columns gr-1 gc-4 tall-56 py-2 px-4 edged rounded on-panel text-decoration-none"
          :to="`/vehicles/${d.vehicle_id}`"
        >
          <b class="fs-20">{{ d.vehicle }}</b>
          <span
            >{{ day(d.on)
            }}<template v-if="shown(d)"
              >, about {{ mine(counter(d.hours ? 'h' : 'km')).say(shown(d)!) }}</template
            ></span
          >
          <small class="quiet all-columns">{{ d.because }}</small>
        </RouterLink>
      </section>
      <section class="d-grid ga-2">
        <h2 class="fs-24">{{ search ? `${data.total} found` : `All ${data.total}` }}</h2>
        <StateNote
          v-if="!data.list.length"
          title="No such vehicle"
          text="Look for another part of its name or plate."
        />
        <RouterLink
          v-for="v in data.list"
          :key="v.id"
          class="row d-grid two-columns gr-1 gc-4 tall-56 py-2 px-4 edged rounded on-panel text-decoration-none"
          :class="{ off: !v.on_board }"
          :to="`/vehicles/${v.id}`"
        >
          <b class="fs-20">{{ v.name }}</b>
          <span>{{ v.place ? `${v.plate} · ${v.place}` : v.plate }}</span>
          <small class="quiet all-columns"
            >{{ v.engine_name }} · {{ shown(v) ? mine(counter(v.counts)).say(shown(v)!) : '–'
            }}{{ v.on_board ? '' : ' · taken off' }}</small
          >
          <small v-if="v.damaged" class="all-columns" role="alert">{{ v.damaged }}</small>
        </RouterLink>
        <VBtn v-if="data.list.length < data.total" @click="many += step">Show more</VBtn>
      </section>
    </div>
  </AppPage>
</template>

<style scoped>
.vehicles {
  max-width: 1000px;
}

.off {
  border-style: dashed;
}
</style>
