<script setup lang="ts">
import { useBench } from '../useBench'

const { state } = useBench()
</script>

<template>
  <div>
    <p class="mx-how">
      The cold start is signed by {{ state.signed_by }}, provisionally. The job is finished when the hot pass is signed:
      run the engine to its temperature, shut it off, and read every valve while it is hot against the hot figures.
    </p>
    <p v-if="state.hot_forecast" class="mx-how">{{ state.hot_forecast }}</p>
    <VAlert role="note"> Hot parts and oil burn. Socket or handle off the crank before the starter is touched. </VAlert>
  </div>
</template>
