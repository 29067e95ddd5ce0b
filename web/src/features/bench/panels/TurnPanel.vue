<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { kindOf, limitsOf } from '../benchWords'
import SightGlyph from '../parts/SightGlyph.vue'
import { useBench } from '../useBench'

const { view, state } = useBench()
/** The signs of this engine that are seen at the stop. */
const signs = computed(() =>
  view.value.engine.signs.filter((s) => stop.value.watch.some((w) => w.what === 'sign' && w.sign === s.id)),
)
/** The learner's line; those who know put it away. */
const why = useLocalStorage('metronix.why-here', true)
/** Whether the mark opposite zero was painted in this job. */
const painted = useLocalStorage(`metronix.painted.${state.value.id}`, false)
const stop = computed(() => state.value.plan!.stops[state.value.now.stop]!)
</script>

<template>
  <div class="turn">
    <p v-if="state.now.before_turning" class="mx-how"><b>First:</b> {{ state.now.before_turning }}</p>
    <p v-if="state.now.paint && !painted" class="mx-how paint">
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
        }}<template v-if="s.doubtful"> (in doubt: check it against {{ s.doubtful }})</template>.</span
      >
    </p>
    <p v-if="why" class="mx-how why">
      <span><b>Why here?</b> {{ stop.why }}</span>
      <VBtn size="small" @click="why = false">I know</VBtn>
    </p>
    <VBtn v-else class="ask" size="small" variant="text" @click="why = true">Why here?</VBtn>
    <div class="then">
      <span class="quiet"
        >There you will {{ state.phase === 'adjust' ? 'set' : state.phase === 'verify' ? 'check' : 'read' }}</span
      >
      <ul>
        <li v-for="name in stop.valves.filter((n) => state.valves.find((v) => v.name === n)!.pending)" :key="name">
          <b>{{ name }}</b> <span class="quiet">{{ kindOf(view, name) }}</span>
          <span class="figure">{{ limitsOf(view, name) }}</span>
        </li>
      </ul>
    </div>
    <VAlert role="note">Hands clear of rockers, cams, belts and pulleys. Call, and wait for the answer.</VAlert>
  </div>
</template>

<style scoped>
.turn {
  display: flex;
  flex-direction: column;
  gap: 12px;
}

.sign {
  display: flex;
  gap: 12px;
  align-items: center;
}

.paint {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  padding: 8px 12px;
  border: 2px solid var(--brass);
  border-radius: 4px;
}

.paint .v-btn {
  flex: none;
}

.why {
  display: flex;
  font-size: 17px;
  line-height: 1.3;
  gap: 12px;
  align-items: start;
  justify-content: space-between;
  padding-left: 12px;
  border-left: 6px solid var(--edge);
}

.why .v-btn {
  flex: none;
}

.ask {
  justify-self: start;
}

.then {
  flex: 1;
}

.then ul {
  display: grid;
  gap: 8px;
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}

.then li {
  display: grid;
  grid-template-columns: 76px 1fr auto;
  align-items: baseline;
  padding: 8px 14px;
  background: var(--panel);
  font-size: 28px;
}

.then li .quiet {
  font-size: 18px;
}
</style>
