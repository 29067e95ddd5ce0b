<script setup lang="ts">
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { answered, api, type Schemas } from '@/shared/api/client'
import StateNote from '@/shared/StateNote.vue'
import { counter, mine, shown } from '@/shared/mine'
import { day } from '@/shared/units'
import OutsideSheet from './OutsideSheet.vue'

/** What each visit found and left, the last first; those to other shops are typed off their sheets. */
const props = defineProps<{ history: Schemas['VehicleHistory'] }>()
const emit = defineEmits<{ kept: [] }>()

const visits = computed(() => [...props.history.visits].reverse())
const run = (n: number) => mine(counter(props.history.vehicle.counts)).say(Math.floor(n))
/** Which of the other shops’ sheets is typed: one of them, a new one, or none. */
const typing = ref<number | 'new' | null>(null)
const trouble = ref('')
/** What was there before one was taken out. */
const before = ref<Schemas['OutsideVisit'][] | null>(null)
/** One shop has one sheet a day. */
const at = (v: Schemas['VisitView']) => props.history.outside.findIndex((o) => v.at.startsWith(o.on) && o.shop === v.by)
const line = (v: Schemas['VisitView']) =>
  [v.job_id ? v.outcome : 'another shop', v.by, ...v.later.map((l) => `later: ${l}`)].filter(Boolean).join(' · ')

async function put(list: Schemas['OutsideVisit'][]) {
  trouble.value = ''
  try {
    await answered(
      api.PUT('/api/v1/vehicles/{id}/outside', {
        params: { path: { id: props.history.vehicle.id } },
        body: { visits: list },
      }),
    )
    typing.value = null
    emit('kept')
    return true
  } catch (e) {
    trouble.value = (e as Error).message
    return false
  }
}
function keep(visit: Schemas['OutsideVisit']) {
  before.value = null
  const list = [...props.history.outside]
  if (typeof typing.value === 'number') list[typing.value] = visit
  else list.push(visit)
  void put(list)
}
async function takeOut(i: number) {
  const had = [...props.history.outside]
  if (await put(had.filter((_, n) => n !== i))) before.value = had
}
async function putBack() {
  if (before.value && (await put(before.value))) before.value = null
}
</script>

<template>
  <section class="visits d-grid ga-3">
    <h2 class="fs-28 lh-tight">Visits</h2>
    <StateNote v-if="!visits.length" title="No finished job yet" text="What each job found and left is shown here." />
    <component
      :is="v.job_id ? RouterLink : 'div'"
      v-for="v in visits"
      :key="v.job_id || `${v.at} ${v.by}`"
      class="visit d-grid ga-3 align-baseline tall-56 py-2 px-4 edged rounded on-panel text-decoration-none"
      :to="v.job_id ? `/jobs/${v.job_id}/sheet` : undefined"
    >
      <b>{{ day(v.at) }}</b>
      <span class="figure">{{ shown(v) ? run(shown(v)!) : '–' }}</span>
      <span
        >{{ v.tight }} tight, {{ v.loose }} loose, {{ v.state }}<small class="quiet d-block">{{ line(v) }}</small></span
      >
      <span v-if="!v.job_id && typing === null" class="d-flex flex-wrap ga-2">
        <VBtn size="small" @click="((typing = at(v)), (trouble = ''))">Correct…</VBtn>
        <VBtn size="small" @click="takeOut(at(v))">Take out</VBtn>
      </span>
    </component>
    <VAlert v-if="trouble && typing === null" role="alert">{{ trouble }}</VAlert>
    <VAlert v-if="before" role="status"
      >The sheet was taken out.
      <template #append><VBtn size="small" @click="putBack">Undo</VBtn></template>
    </VAlert>
    <OutsideSheet
      v-if="typing !== null && history.engine"
      :key="typing"
      :visit="typing === 'new' ? null : history.outside[typing]!"
      :engine="history.engine"
      :counts="history.vehicle.counts"
      :trouble="trouble"
      @keep="keep"
      @back="((typing = null), (trouble = ''))"
    />
    <VBtn
      v-else-if="history.engine"
      size="small"
      class="justify-self-start"
      @click="((typing = 'new'), (trouble = ''), (before = null))"
      >A sheet of another shop…</VBtn
    >
  </section>
</template>

<style scoped>
.visit {
  grid-template-columns: 150px 140px 1fr auto;
}

@media (width <= 600px) {
  .visit {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
