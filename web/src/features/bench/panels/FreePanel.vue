<script setup lang="ts">
import ValveTabs from '../parts/ValveTabs.vue'
import { useBench } from '../useBench'

const { valve, leave } = useBench()
</script>

<template>
  <ValveTabs />
  <div>
    <p class="mx-how">
      Slacken the lock nut and turn the adjuster back until the valve has play and the screw turns freely by hand.
      Nothing is read before, so this valve has no as-found figure.
    </p>
    <p class="mx-how">A screw that will not turn: do not force it. Leave the valve with that reason.</p>
    <VBtn @click="leave(valve!.name)">{{ valve!.name }} will not turn…</VBtn>
  </div>
</template>
