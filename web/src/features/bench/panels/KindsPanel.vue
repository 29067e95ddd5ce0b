<script setup lang="ts">
import { useRoute } from 'vue-router'
import { useBench } from '../useBench'

/** What following the ports comes to: said once of an engine that was made from a common pattern. */
const { view } = useBench()
const job = String(useRoute().params.id)
</script>

<template>
  <div class="d-grid ga-4 align-content-start">
    <ul class="d-grid ga-3 lh-easy ma-0 ps-5 fs-20">
      <li>A common pattern was taken for this head. Nobody has looked yet.</li>
      <li>Round tokens belong at the intake manifold, square ones at the exhaust.</li>
      <li>Intake and exhaust have different gaps: one taken for the other is set wrong.</li>
    </ul>
    <VBtn class="justify-self-start" :to="`/engines/${view.vehicle.engine_id}?for=${job}`">They stand otherwise…</VBtn>
  </div>
</template>
