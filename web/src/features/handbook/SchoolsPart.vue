<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { readOnce, reads } from '@/shared/api/reads'
import CrankInHand from '@/features/practice/CrankInHand.vue'
import { onArc, stopAt, valvesAt } from '@/shared/engine/arcs'
import HeadDrawing from '@/shared/engine/HeadDrawing.vue'
import SideView from '@/shared/engine/SideView.vue'
import TurnBand from '@/shared/engine/TurnBand.vue'
import PickOne from '@/shared/PickOne.vue'
import { degrees } from '@/shared/units'
import { book } from './book'

/** How each school goes round an engine that the reader turns: that of the job or the practice run where it was asked for, else the example. */
const route = useRoute()
const ways = shallowRef(book.ways)
const asked = { job: String(route.query.job ?? ''), practice: String(route.query.practice ?? '') }
async function ofTheEngine() {
  try {
    ways.value = await readOnce(reads.ways(asked))
  } catch {
    // it cannot be reached: the example tells the same
  }
}
if (asked.job || asked.practice) void ofTheEngine()

const plans = computed(() =>
  ways.value.plans.filter((p, i, all) => p.applies && all.findIndex((o) => o.school === p.school) === i),
)
const school = ref(String(route.query.school ?? 'rocking_pairs'))
const plan = computed(() => plans.value.find((p) => p.school === school.value) ?? plans.value[0]!)
const engine = computed(() => ways.value.engine)
const crank = ref(0)
const shown = ref<number | null>(null)
watch(
  plan,
  (p) => {
    crank.value = p.stops[Number(route.query.stop ?? 0)]?.crank_deg ?? p.stops[0]!.crank_deg
    shown.value = null
  },
  { immediate: true },
)
const at = computed(() => shown.value ?? crank.value)
const stop = computed(() => stopAt(plan.value, at.value, 6))
const here = computed(() => plan.value.stops[stop.value] ?? null)
/** The stop that comes next as the crank turns. */
const next = computed(() => {
  const ahead = (deg: number) => (((deg - at.value) % 720) + 720) % 720 || 720
  return plan.value.stops.reduce((a, b) => (ahead(b.crank_deg) < ahead(a.crank_deg) ? b : a))
})
const ahead = computed(() => (((next.value.crank_deg - at.value) % 720) + 720) % 720 || 720)

const picked = ref('')
const valve = computed(
  () => engine.value.valves.find((v) => v.name === (picked.value || here.value?.valves[0])) ?? engine.value.valves[0]!,
)
const clear = computed(() => valve.value.may_set.some((a) => onArc(a, at.value)))
const valves = computed(() => {
  const all = valvesAt(engine.value, at.value, here.value?.valves ?? [])
  all[valve.value.name]!.chosen = true
  return all
})
function turned(by: number) {
  crank.value = (((at.value === crank.value ? crank.value + by : at.value) % 720) + 720) % 720
  shown.value = null
}
function on() {
  crank.value = next.value.crank_deg
  shown.value = null
}
</script>

<template>
  <section class="d-grid ga-4" aria-label="The schools">
    <PickOne
      v-model="school"
      class="one-row"
      label="School"
      small
      :options="plans.map((p) => ({ value: p.school, title: p.title }))"
    />
    <p class="fs-24 lh-tight">{{ plan.how_to }}</p>
    <div class="drives d-grid ga-4">
      <CrankInHand :engine="engine" :crank="crank" :firing="[]" :tool="null" @shows="shown = $event" @turn="turned" />
      <div class="head">
        <HeadDrawing :engine="engine" :crank="at" :shown="valves" pickable="all" bare @pick="picked = $event" />
      </div>
      <div class="side">
        <SideView :valve="valve" :gear="engine.gear.picture" :crank="at" :settable="clear" :verdict="null" leaf="" />
      </div>
    </div>
    <div class="says d-grid ga-2 pa-4 on-panel bar-brass" aria-live="polite">
      <template v-if="here">
        <h2 class="fs-30 lh-tight">
          {{ here.standing }}: <em class="brass">{{ here.valves.join(', ') }}</em>
        </h2>
        <p class="fs-20">{{ here.why }}</p>
        <p class="fs-20">{{ here.how_to_see }}</p>
      </template>
      <h2 v-else class="fs-30 lh-tight">
        {{ degrees(Math.round(ahead)) }} on, <em class="brass">{{ next.until }}</em>
      </h2>
      <div class="d-flex flex-wrap ga-3">
        <VBtn variant="flat" @click="on">Turn on until {{ next.until }}</VBtn>
        <span class="quiet align-self-center">{{ engine.name }}, {{ degrees(Math.round(at)) }}</span>
      </div>
    </div>
    <TurnBand
      v-model:dragged="crank"
      :engine="engine"
      :plan="plan"
      :crank="at"
      :stop="stop"
      :finished="[]"
      :here="here?.valves ?? []"
      draggable
    />
    <p v-for="c in plan.cautions" :key="c" class="quiet">{{ c }}</p>
  </section>
</template>

<style scoped>
.drives {
  grid-template-columns: 250px minmax(0, 1fr) 220px;
  align-items: center;
}

.head {
  height: 300px;
  overflow: auto;
}

.side {
  height: 300px;
}

@media (width <= 900px) {
  .drives {
    grid-template-columns: minmax(200px, 1fr) minmax(0, 130px);
  }

  .head {
    grid-column: 1 / -1;
    order: -1;
    height: 230px;
  }

  .side {
    height: 200px;
  }
}
</style>
