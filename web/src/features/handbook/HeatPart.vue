<script setup lang="ts">
import CoolingPlot from '@/features/bench/parts/CoolingPlot.vue'
import { book } from './book'

/** When cold and hot figures hold, what the bench says where they do not, and how an engine cools. */
const { heat } = book
</script>

<template>
  <section class="d-grid ga-4" aria-label="Hot and cold">
    <p class="fs-24 lh-tight">{{ heat.asks }}</p>
    <article v-for="c in heat.cases" :key="c.says" class="d-grid ga-1 pa-4 on-panel bar-brass">
      <p class="fs-20">{{ c.says }}</p>
      <b class="fs-24">{{ c.comes }}</b>
      <p class="quiet">{{ c.why }}</p>
    </article>
    <h2 class="fs-24">What the bench says</h2>
    <VAlert v-for="r in heat.refusals" :key="r" role="note">{{ r }}</VAlert>
    <h2 class="fs-24">How an engine cools</h2>
    <div class="plot">
      <CoolingPlot :readings="heat.readings" :cooling="heat.cooling" :gate="heat.gate_c ?? null" />
    </div>
  </section>
</template>

<style scoped>
.plot {
  max-width: 760px;
}
</style>
