<script setup lang="ts">
import ValveTabs from '../parts/ValveTabs.vue'
import { useBench } from '../useBench'

const { state, valve, leave } = useBench()
</script>

<template>
  <ValveTabs />
  <div>
    <p v-if="state.crank_deg !== null && !valve!.settable" class="mx-how">
      <b>Crack the nut only:</b> the lobe holds this valve open, and its spring bears on the screw.
    </p>
    <p v-else class="mx-how">
      Slacken the lock nut and turn the adjuster back until the valve has play and the screw turns freely by hand. At a
      valve that is held open crack the nut only: its spring bears on the screw.
    </p>
    <p class="mx-how">
      All are slackened where the engine stands. Nothing is read before: there is no as-found figure.
    </p>
    <p class="mx-how">A screw that will not turn: do not force it. Leave the valve with that reason.</p>
    <VBtn @click="leave(valve!.name)">{{ valve!.name }} will not turn…</VBtn>
  </div>
</template>
