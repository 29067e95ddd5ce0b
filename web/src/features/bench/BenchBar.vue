<script setup lang="ts">
import { computed } from 'vue'
import type { JobView } from '@/shared/api/client'
import { mine } from '@/shared/mine'
import { phaseName } from '@/shared/phases'
import HotClock from './parts/HotClock.vue'
import type { Doing } from './useJob'

/** What stands in the bench's head line: sequence, temperature and its clock, what is asked when the crank is in doubt, ways out. */
const props = defineProps<{ view: JobView; mayFind: boolean }>()
const emit = defineEmits<{ do: [doing: Doing]; find: []; choose: []; help: [] }>()
const state = computed(() => props.view.state)
</script>

<template>
  <VBtn v-if="state.plan && !['sign', 'await_hot', 'done'].includes(state.phase)" size="small" @click="emit('choose')">
    {{ state.plan.title }}
  </VBtn>
  <VBtn v-if="view.correctable && state.phase !== 'done'" size="small" :to="`/jobs/${state.id}/start`"
    >Correct details</VBtn
  >
  <HotClock
    v-if="state.hot_clock && !['done', 'await_hot'].includes(state.phase)"
    :clock="state.hot_clock"
    :engine-c="state.engine_c"
    @stopped="emit('do', { kind: 'engine_stopped' })"
  />
  <span v-else-if="state.engine_c !== null" class="heat py-2 px-3 rounded is-in text-no-wrap" :class="state.card.state"
    >{{ state.card.state }} {{ mine('temperature').short(state.engine_c) }}</span
  >
  <span v-else-if="state.cold_by" class="heat cold py-2 px-3 rounded is-in text-no-wrap" :title="state.cold_by"
    >judged cold</span
  >
  <VBtn v-if="mayFind" class="where" size="small" @click="emit('find')"> Where am I? <kbd>W</kbd> </VBtn>
  <VBtn v-if="mayFind && state.crank_deg !== null" size="small" @click="emit('do', { kind: 'doubted' })">
    Crank moved?
  </VBtn>
  <VBtn size="small" :to="`/jobs/${state.id}/steps`">Steps</VBtn>
  <VBtn v-if="state.happenings > 2" size="small" :to="`/jobs/${state.id}/sheet`">Sheet</VBtn>
  <VBtn class="wide-only" size="small" aria-label="Keys" @click="emit('help')">?</VBtn>
  <span
    class="count d-grid lh-none text-right"
    :aria-label="`${phaseName(state.phase)}: ${state.done} of ${state.total}`"
  >
    <small class="text-no-wrap quiet fs-15">{{ phaseName(state.phase) }}</small>
    <b class="figure fs-28">{{ state.done }}/{{ state.total }}</b>
  </span>
</template>

<style scoped>
.heat {
  border: 2px solid var(--in);
}

.heat::first-letter {
  text-transform: uppercase;
}

.heat.hot {
  border-color: var(--tight);
  color: var(--tight);
}

@media (width <= 1000px) {
  .wide-only {
    display: none;
  }

  .heat {
    padding: 6px 8px;
    font-size: 16px;
  }

  .count small {
    white-space: nowrap;
    display: none;
  }
}

/* One row: what is needed after lunch stands first, the rest is a swipe away. */
@media (width <= 1400px) {
  .where,
  .count {
    order: -1;
  }
}
</style>
