<script setup lang="ts">
import { computed } from 'vue'
import { octagon } from '@/shared/engine/shapes'
import { kindOf, limitsOf } from '../benchWords'
import { capital } from '@/shared/words'
import { useBench } from '../useBench'

const { view, state, act } = useBench()
const names = computed(() => {
  const { here, valve } = state.value.now
  return here.includes(valve) ? here : [valve, ...here]
})

const calledOf = (name: string) => state.value.valves.find((v) => v.name === name)!.called

function pick(valve: string) {
  if (valve !== state.value.now.valve) act({ kind: 'picked', valve })
}
</script>

<template>
  <div class="tabs d-flex flex-0-0 ga-2 overflow-x-auto pb-1" role="group" aria-label="Valves at this stop">
    <VBtn
      v-for="name in names"
      :key="name"
      class="tab flex-1-0 justify-start py-1 px-3 text-left"
      :class="{ on: name === state.now.valve }"
      :aria-pressed="name === state.now.valve"
      @click="pick(name)"
    >
      <svg class="flex-0-0 f-none s-quiet sw-3" viewBox="-24 -24 48 48" aria-hidden="true">
        <circle v-if="kindOf(view, name) === 'intake'" r="20" />
        <path v-else :d="octagon(20)" />
      </svg>
      <span
        ><b class="d-block fs-28 lh-none">{{ capital(calledOf(name)) }}</b
        ><small class="quiet fs-15 lh-none">{{ kindOf(view, name) }}, {{ limitsOf(view, name) }}</small></span
      >
    </VBtn>
  </div>
</template>

<style scoped>
.tabs {
  scrollbar-width: none;
}

.tab {
  --v-btn-height: 68px;
}

.tab svg {
  width: 38px;
  height: 38px;
}

.tab.on svg {
  stroke: var(--brass);
}

@media (width <= 1000px) and (height <= 480px) {
  .tab {
    --v-btn-height: 56px;

    padding: 2px 10px;
  }

  .tab small {
    display: none;
  }

  .tab b {
    font-size: 24px;
  }
}
</style>
