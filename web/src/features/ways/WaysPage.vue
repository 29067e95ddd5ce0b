<script setup lang="ts">
import AppPage from '@/shared/AppPage.vue'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { stopAt, valvesAt } from '@/shared/engine/arcs'
import CrankPulley from '@/shared/engine/CrankPulley.vue'
import HeadDrawing from '@/shared/engine/HeadDrawing.vue'
import TurnBand from '@/shared/engine/TurnBand.vue'
import FoldAway from '@/shared/FoldAway.vue'
import PickOne from '@/shared/PickOne.vue'
import ReasonDialog from '@/shared/ReasonDialog.vue'
import StateNote from '@/shared/StateNote.vue'
import { useKeys } from '@/shared/useKeys'
import { degrees } from '@/shared/units'
import FrontierPlot from './FrontierPlot.vue'
import { roundOf, useWays } from './useWays'
import WayRow from './WayRow.vue'

const route = useRoute()
const router = useRouter()
const id = String(route.params.id)
const job = route.name === 'job-ways'
const w = useWays(job ? { job: id } : { engine: id }, roundOf(route.query))
const { ways, trouble, direction, positions, plan, open, shut, again } = w

const asking = ref(false)
const crank = ref(0)
const engine = computed(() => ways.value!.engine)
const stop = computed(() => stopAt(plan.value, crank.value))
const here = computed(() => (stop.value >= 0 ? plan.value!.stops[stop.value]! : null))
const clear = computed(() => {
  const { valves: names, set } = here.value!
  if (names.length > 4)
    return `${names.join(' ')}: clear by ${degrees(Math.min(...set.map((s) => s.margin_deg)))} or more`
  return set.map((s) => `${s.valve} clear by ${degrees(s.margin_deg)}`).join(' · ')
})
const most = computed(() =>
  Math.max(...open.value.map((p) => p.smallest_margin_deg!), ways.value?.required_margin_deg ?? 1),
)
const card = computed(() => ({
  path: `/engines/${id}/card`,
  query: {
    school: plan.value?.school,
    order: plan.value?.order,
    direction: direction.value,
    positions: positions.value,
    stops: String(plan.value?.stop_count ?? 0),
  },
}))
watch(plan, (p) => (crank.value = p?.stops[0]?.crank_deg ?? 0))

/** Goes to the next stop of the way looked at, in its order. */
function walk(by: number) {
  const stops = plan.value?.stops ?? []
  if (!stops.length) return
  const at = stop.value >= 0 ? stop.value : by > 0 ? -1 : 0
  crank.value = stops[(at + by + stops.length) % stops.length]!.crank_deg
}

async function take() {
  if (await w.take()) await router.push(`/jobs/${id}`)
}

useKeys((k) => {
  if (k === 'ArrowDown' || k === 'ArrowUp') w.step(k === 'ArrowDown' ? 1 : -1)
  else if (k === 'ArrowRight' || k === 'ArrowLeft') walk(k === 'ArrowRight' ? 1 : -1)
  else if (k === 'Enter' && job) void take()
  else return false
  return true
})
</script>

<template>
  <AppPage
    title="Sequences"
    :sub="ways?.engine.name"
    :back="job ? 'Bench' : 'Engines'"
    :back-to="job ? `/jobs/${id}` : '/engines'"
    bare
    :ready="ways !== undefined"
    :trouble="trouble"
    failed="The sequences could not be read."
    waiting="Planning…"
    @again="again"
  >
    <template #bar>
      <template v-if="ways">
        <VSwitch
          v-if="engine.may_turn_back || w.backReason.value"
          v-model="direction"
          label="Turn back"
          true-value="back"
          false-value="running"
        />
        <VBtn v-if="job && !engine.may_turn_back && !w.backReason.value" size="small" @click="asking = true">
          Turn back all the same…
        </VBtn>
        <VSwitch v-model="positions" label="Only at marks" true-value="marks" false-value="any" />
        <VBtn v-if="plan && !job" size="small" :to="card">Card</VBtn>
      </template>
    </template>
    <main v-if="ways" class="ways d-grid">
      <section class="list py-4 px-4">
        <VAlert v-if="w.backReason.value && plan" role="note">{{ plan.cautions.at(-1) }}</VAlert>
        <StateNote v-if="trouble" tone="trouble" title="That cannot be done." :text="trouble" />
        <PickOne
          v-if="open.length"
          v-slot="{ option: { p } }"
          :model-value="plan ? w.key(plan) : ''"
          class="rows d-grid"
          label="Sequences, side by side"
          :options="open.map((p) => ({ value: w.key(p), p }))"
          @update:model-value="(k) => (w.chosen.value = k)"
        >
          <WayRow :plan="p" :required="ways.required_margin_deg" :most="most" />
        </PickOne>
        <StateNote
          v-else
          title="No sequence suits this engine."
          text="With these conditions some valve is never clear enough at a stop."
        />
        <section v-for="p in shut" :key="p.school" class="shut mt-3 py-1 px-4 fs-16">
          <b>{{ p.title }}</b> <span class="quiet">not for this engine.</span>
          <p class="quiet">{{ p.reason }}</p>
        </section>
      </section>
      <section v-if="plan" class="look d-grid ga-1 align-content-start py-3 px-5 overflow-y-auto">
        <div class="say d-flex ga-4 align-center">
          <span class="dial flex-0-0"
            ><CrankPulley :crank="crank" :rotation="engine.rotation" :marks="engine.marks_deg" :turning="false"
          /></span>
          <div>
            <h2 class="fs-30 lh-none" aria-live="polite">
              <template v-if="here"
                >Stop {{ stop + 1 }}: <em class="brass">{{ here.standing }}.</em></template
              ><template v-else>{{ degrees(crank) }}</template>
            </h2>
            <p class="quiet">
              {{ here ? clear : plan.how_to }}
            </p>
          </div>
        </div>
        <div class="head shrinks" tabindex="0" aria-label="The head, drawn">
          <HeadDrawing :engine="engine" :crank="crank" :shown="valvesAt(engine, crank, here?.valves ?? [])" bare />
        </div>
        <div class="band shrinks">
          <TurnBand
            v-model:dragged="crank"
            :engine="engine"
            :plan="plan"
            :crank="crank"
            :stop="stop"
            :finished="[]"
            :here="here?.valves ?? []"
            draggable
          />
        </div>
        <div class="foot d-grid ga-4">
          <div>
            <VSlider
              v-model="crank"
              :min="0"
              :max="719"
              :step="1"
              hide-details
              color="primary"
              aria-label="Crank position, degrees"
            />
            <p class="walk d-flex flex-wrap ga-2 my-1 mx-0">
              <VBtn size="small" @click="walk(-1)">Previous <kbd>←</kbd></VBtn>
              <VBtn size="small" @click="walk(1)">Next <kbd>→</kbd></VBtn>
            </p>
            <FoldAway title="Cautions and what is assumed">
              <p v-for="c in plan.cautions" :key="c" class="caution fs-15 lh-tight">{{ c }}</p>
              <p v-for="a in plan.assumed" :key="a" class="quiet caution fs-15 lh-tight">Assumed: {{ a }}</p>
            </FoldAway>
          </div>
          <figure class="ma-0">
            <figcaption class="quiet fs-15">Stops against smallest margin: tap a point</figcaption>
            <FrontierPlot
              :points="ways.frontier"
              :required="ways.required_margin_deg"
              :at="plan.school === 'fewest_stops' ? plan.stops.length : 0"
              @pick="w.best"
            />
          </figure>
        </div>
        <VBtn v-if="job" variant="flat" size="large" @click="take"> Use this sequence <kbd>Enter</kbd> </VBtn>
      </section>
    </main>
  </AppPage>
  <ReasonDialog
    v-model="asking"
    title="Why is this engine turned back?"
    text="Its sheet does not allow it: a sprung tensioner may let the belt or chain jump, and the crank bolt can come undone. This holds for this job alone, and the sheet shows it."
    :usual="['No tensioner: gears', 'Tensioner blocked or off', 'The maker allows it for this work']"
    button="Turn back for this reason"
    @reason="w.backAnyway"
  />
</template>

<style scoped>
.ways {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  min-height: calc(100dvh - 62px);
}

.list {
  border-right: 2px solid var(--line);
}

.rows :deep(.v-btn) {
  padding: 8px 16px;
}

.rows :deep(.v-btn__content) {
  flex: 1;
}

.shut {
  border-left: 6px dotted var(--edge);
}

.look {
  position: sticky;
  top: 0;
  grid-template-rows: auto minmax(120px, 1fr) minmax(120px, 1fr) auto auto;
  height: calc(100dvh - 62px);
  min-height: 640px;
}

.dial {
  width: 74px;
  height: 76px;
}

em {
  font-style: normal;
}

.foot {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}

summary {
  min-height: 44px;
  align-content: center;
  font-size: 16px;
  cursor: pointer;
}

@media (width <= 1000px) {
  .ways,
  .foot {
    grid-template-columns: minmax(0, 1fr);
  }

  .look {
    position: static;
    grid-template-rows: none;
    order: -1;
    height: auto;
    min-height: 0;
  }

  .head {
    overflow-x: auto;
  }

  .list {
    border-right: 0;
  }
}
</style>
