<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { degrees } from '@/shared/units'
import WhyLink from '@/shared/WhyLink.vue'
import { kindOf, limitsOf, unitOver } from '../benchWords'
import SightGlyph from '../parts/SightGlyph.vue'
import { useBench } from '../useBench'

const { view, state, practice } = useBench()
/** Whose engine the handbook is to turn. */
const ofWhom = computed<Record<string, string>>(() => ({ [practice.value ? 'practice' : 'job']: state.value.id }))
/** The signs of this engine that are seen at the stop. */
const signs = computed(() =>
  view.value.engine.signs.filter((s) => stop.value.watch.some((w) => w.what === 'sign' && w.sign === s.id)),
)
/** The learner's line; those who know put it away. */
const why = useLocalStorage('metronix.why-here', true)
/** Whether the mark opposite zero was painted in this job. */
const painted = useLocalStorage(`metronix.painted.${state.value.id}`, false)
const stop = computed(() => state.value.plan!.stops[state.value.now.stop]!)
const waits = computed(() => stop.value.valves.filter((n) => state.value.valves.find((v) => v.name === n)!.pending))
const unit = computed(() => unitOver(view.value, waits.value))
</script>

<template>
  <div class="turn d-flex flex-column ga-3">
    <p v-if="state.now.comes_clear.length" class="comes mx-how">
      Clear next:
      <template v-for="(c, i) in state.now.comes_clear" :key="c.valve"
        >{{ i ? ', ' : '' }}<b>{{ c.valve }}</b> in
        <span class="figure">{{ degrees(Math.ceil(c.in_deg)) }}</span></template
      >
    </p>
    <p v-if="state.now.before_turning" class="mx-how"><b>First:</b> {{ state.now.before_turning }}</p>
    <p
      v-if="state.now.paint && !painted"
      class="mx-how paint edged-brass d-flex ga-3 align-center justify-space-between py-2 px-3 rounded"
    >
      <span><b>First:</b> {{ state.now.paint }}</span>
      <VBtn size="small" @click="painted = true">Painted</VBtn>
    </p>
    <p class="mx-how">{{ stop.how_to_see }}</p>
    <p v-if="painted && stop.crank_deg % 360 === 180" class="mx-how">The painted mark comes to the pointer there.</p>
    <p v-if="stop.watch.slice(1).some((w) => w.what === 'mark')" class="mx-how">
      A mark on the pulley comes to the pointer there too.
    </p>
    <p v-for="s in signs" :key="s.id" class="mx-how sign">
      <SightGlyph what="sign" />
      <span
        >There you see on the {{ s.where }}: {{ s.text
        }}<template v-if="s.doubtful"> (in doubt: check it against {{ s.doubtful }})</template>.<template
          v-if="s.check_by"
        >
          Make sure of it by this: {{ s.check_by }}.</template
        ></span
      >
    </p>
    <p v-if="why" class="mx-how why lh-easy d-flex fs-16 ga-3 align-start justify-space-between ps-3 bar-edge">
      <span
        ><b>Why here?</b> {{ stop.why }}
        <WhyLink page="schools" :of="{ ...ofWhom, school: state.plan!.school, stop: state.now.stop }"
          >See it turn</WhyLink
        ></span
      >
      <VBtn size="small" @click="why = false">I know</VBtn>
    </p>
    <VBtn v-else class="ask justify-self-start" size="small" variant="text" @click="why = true">Why here?</VBtn>
    <div class="then fills">
      <span class="quiet"
        >There you will {{ state.phase === 'adjust' ? 'set' : state.phase === 'verify' ? 'check' : 'read'
        }}{{ unit && `, ${unit}` }}</span
      >
      <ul class="d-grid ga-2 mx-0 mt-2 mb-0 pa-0 list-none">
        <li v-for="name in waits" :key="name" class="d-grid align-baseline py-2 px-3 on-panel fs-28">
          <b>{{ name }}</b> <span class="quiet fs-18">{{ kindOf(view, name) }}</span>
          <span class="figure">{{ limitsOf(view, name) }}</span>
        </li>
      </ul>
    </div>
    <VAlert v-if="state.turn_caution" role="note">{{ state.turn_caution }}</VAlert>
    <VAlert role="note">Hands clear of rockers, cams, belts and pulleys. Call, and wait for the answer.</VAlert>
  </div>
</template>

<style scoped>
.sign {
  display: flex;
  gap: 12px;
  align-items: center;
}

.paint .v-btn {
  flex: none;
}

.why .v-btn {
  flex: none;
}

.then li {
  grid-template-columns: 76px 1fr auto;
}
</style>
