<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { PlanView, Schemas } from '@/shared/api/client'
import { stopAt, valvesAt } from '@/shared/engine/arcs'
import CrankPulley from '@/shared/engine/CrankPulley.vue'
import HeadDrawing from '@/shared/engine/HeadDrawing.vue'
import { isWide } from '@/shared/engine/headLayout'
import TurnBand from '@/shared/engine/TurnBand.vue'
import FoldAway from '@/shared/FoldAway.vue'
import { degrees } from '@/shared/units'
import FrontierPlot from './FrontierPlot.vue'

/** One sequence looked at on the engine, stop by stop, with the crank turned by hand. */
const props = defineProps<{ plan: PlanView; ways: Schemas['Ways'] }>()
defineEmits<{ best: [stops: number] }>()

const crank = ref(0)
const engine = computed(() => props.ways.engine)
const stop = computed(() => stopAt(props.plan, crank.value))
const here = computed(() => (stop.value >= 0 ? props.plan.stops[stop.value]! : null))
const clear = computed(() => {
  const { valves: names, set } = here.value!
  if (names.length > 4)
    return `${names.join(' ')}: clear by ${degrees(Math.min(...set.map((s) => s.margin_deg)))} or more`
  return set.map((s) => `${s.valve} clear by ${degrees(s.margin_deg)}`).join(' · ')
})
watch(
  () => props.plan,
  (p) => (crank.value = p.stops[0]?.crank_deg ?? 0),
  { immediate: true },
)

/** Goes to the next stop of the way looked at, in its order. */
function walk(by: number) {
  const stops = props.plan.stops
  if (!stops.length) return
  const at = stop.value >= 0 ? stop.value : by > 0 ? -1 : 0
  crank.value = stops[(at + by + stops.length) % stops.length]!.crank_deg
}
defineExpose({ walk })
</script>

<template>
  <section class="look d-grid ga-1 align-content-start py-3 px-5 overflow-y-auto">
    <div class="say d-flex ga-4 align-center">
      <span class="dial flex-0-0"
        ><CrankPulley :crank="crank" :rotation="engine.rotation" :marks="engine.marks_deg"
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
      <HeadDrawing
        :engine="engine"
        :crank="crank"
        :shown="valvesAt(engine, crank, here?.valves ?? [])"
        :stand="isWide(engine) ? 'near' : 'left'"
        bare
      />
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
    <div class="foot d-grid ga-4" :class="{ long: ways.frontier.length > 6 }">
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
          @pick="(n) => $emit('best', n)"
        />
      </figure>
    </div>
    <slot />
  </section>
</template>

<style scoped>
.look {
  position: sticky;
  top: 0;
  grid-template-rows: auto minmax(190px, 1fr) minmax(190px, 1fr) auto auto;
  height: calc(100dvh - 62px);
  min-height: 640px;
}

.dial {
  width: 74px;
  height: 76px;
}

.foot {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}

/* Many points have the whole width, so that none is cut off. */
.foot.long {
  grid-template-columns: minmax(0, 1fr);
}

@media (width <= 1000px) {
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

  .foot {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
