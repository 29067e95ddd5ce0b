<script setup lang="ts">
import { computed } from 'vue'
import { kindOf, limitsOf } from '../benchWords'
import SightGlyph from '../parts/SightGlyph.vue'
import { useBench } from '../useBench'

const { view, state } = useBench()
/** The signs of this engine that are seen at the stop. */
const signs = computed(() =>
  view.value.engine.signs.filter((s) => stop.value.watch.some((w) => w.what === 'sign' && w.sign === s.id)),
)
const stop = computed(() => state.value.plan!.stops[state.value.now.stop]!)
</script>

<template>
  <div class="turn">
    <p class="mx-how">{{ stop.how_to_see }}</p>
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
