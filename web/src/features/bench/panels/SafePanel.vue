<script setup lang="ts">
import { useBench } from '../useBench'

/** What making safe comes to: said once in a job, before hands come near belts, fan and crank. */
const { state } = useBench()
</script>

<template>
  <ul class="safe d-grid ga-3 lh-easy ma-0 ps-5 fs-20 align-content-start">
    <li>Neutral or park, wheels chocked.</li>
    <li>Key well away: keyless, stop-start and hybrid cars can crank by themselves.</li>
    <li>Battery off where the work passes live connectors.</li>
    <li>Raised: on stands, not the jack.</li>
    <li v-if="state.card.state === 'hot'">Hot parts and oil burn. A fan may start by itself.</li>
  </ul>
</template>
