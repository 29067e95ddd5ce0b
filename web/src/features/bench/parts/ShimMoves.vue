<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import { mm } from '@/shared/units'

/** Which valves get another shim: from what to what, where it is to be had, and what gap that leaves. */
defineProps<{ moves: Schemas['ShimFit'][] }>()
</script>

<template>
  <ul class="moves d-grid ga-1 ma-0 pa-0 list-none">
    <li v-for="f in moves" :key="f.valve" class="ps-3 pe-2 pt-1 pb-1 bar-brass on-panel">
      <span class="what d-grid align-baseline fs-20"
        ><b class="fs-26">{{ f.valve }}</b>
        <span class="figure">{{ f.fitted_mm ? mm(f.fitted_mm) : 'out' }} → {{ mm(f.shim_mm) }}</span>
        <small class="quiet fs-15">{{ f.origin }}, gap {{ mm(f.gap_mm) }}; wanted {{ mm(f.wanted_mm) }}</small></span
      >
    </li>
  </ul>
</template>

<style scoped>
.what {
  grid-template-columns: 64px 1fr;
}

.what small {
  grid-column: 2;
}
</style>
