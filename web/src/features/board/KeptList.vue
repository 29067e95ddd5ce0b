<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { keptJobs, type KeptJob } from '@/shared/keptJobs'
import { phaseName } from '@/shared/phases'
import { when } from '@/shared/units'
import HandOverPart from './HandOverPart.vue'

/** The jobs that this tablet can go on with while the program cannot be reached. */
const jobs = ref<KeptJob[]>([])
onMounted(async () => {
  jobs.value = (await keptJobs.all()).filter((j) => j.view.state.phase !== 'done')
})
</script>

<template>
  <HandOverPart />
  <section v-if="jobs.length" class="kept d-grid ga-3 w-100 mb-3" aria-label="Jobs kept on this tablet">
    <h2 class="fs-24">Kept on this tablet</h2>
    <p class="quiet">Go on with these; what you do is sent when the program can be reached again.</p>
    <RouterLink
      v-for="j in jobs"
      :key="j.id"
      class="d-flex align-center ga-4 py-3 px-5 edged rounded text-decoration-none"
      :to="`/jobs/${j.id}`"
    >
      <span class="fills">
        <b class="d-block fs-26">{{ j.view.vehicle.name }}</b>
        <span class="quiet">{{ phaseName(j.view.state.phase) }}, {{ when(j.at) }}</span>
      </span>
      <b class="figure fs-28">{{ j.view.state.done }}/{{ j.view.state.total }}</b>
    </RouterLink>
  </section>
</template>

<style scoped>
/* What can be done goes before what can be tried. */
.kept {
  order: -1;
}
</style>
