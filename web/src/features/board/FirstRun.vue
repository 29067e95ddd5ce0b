<script setup lang="ts">
import { ref } from 'vue'
import { answered, api } from '@/shared/api/client'

/** What a newcomer sees: what this is, and the two ways to begin. */
const trouble = ref('')
const opening = ref(false)

async function tryIt() {
  opening.value = true
  trouble.value = ''
  try {
    const { port } = await answered(api.POST('/api/v1/demo'))
    const { protocol, hostname } = location
    const home = location.port || (protocol === 'https:' ? 443 : 80)
    location.assign(`${protocol}//${hostname}:${port}/jobs/demo-job-tipper?home=${home}`)
  } catch (e) {
    trouble.value = (e as Error).message
    opening.value = false
  }
}
</script>

<template>
  <section class="first d-grid ga-6" aria-labelledby="first">
    <h2 id="first" class="lh-tight">Valve clearances, valve by valve.</h2>
    <ol class="d-grid ga-4 ma-0 pa-0 list-none fs-22 lh-easy">
      <li><b>It says which valves may be set</b> at each place of the crank, and how far to turn on.</li>
      <li><b>It judges each reading</b> by the leaves you own, and says what to do next.</li>
      <li><b>It keeps the record:</b> every gap found and left, and when it is due again.</li>
    </ol>
    <div class="d-flex flex-wrap ga-3">
      <VBtn class="go fs-24" variant="flat" to="/start">Start a job</VBtn>
      <VBtn class="try fs-20" :loading="opening" @click="tryIt">Try it on the demo’s tipper</VBtn>
    </div>
    <p class="quiet fs-16">
      The first job asks for an engine, your feelers and a vehicle, in a few taps. The demo is a workshop of its own:
      nothing of it comes into yours.
    </p>
    <VAlert v-if="trouble" role="alert">{{ trouble }}</VAlert>
  </section>
</template>

<style scoped>
.first {
  max-width: 860px;
}

h2 {
  font-size: clamp(32px, 5vw, 52px);
}

li {
  padding-left: 18px;
  border-left: 5px solid var(--brass);
}

.go {
  min-width: 280px;
  min-height: 72px;
}

.try {
  min-height: 72px;
}
</style>
