<script setup lang="ts">
import type { Waiting } from '@/shared/useQueue'
import RefusedList from './RefusedList.vue'

/** What stands between this screen and the program: what was refused, what waits to be sent, and why. */
defineProps<{
  waiting: Waiting[]
  refused: Waiting[]
  offline: boolean
  told: string
  unkept: boolean
  refusal: string
}>()
const emit = defineEmits<{ keepThere: [waits: Waiting]; forget: [waits: Waiting] }>()
</script>

<template>
  <VAlert v-if="refusal" class="refusal" variant="tonal" color="">{{ refusal }}</VAlert>
  <VAlert v-if="offline" class="refusal" variant="tonal" color="">
    {{ told || 'The program cannot be reached.' }} {{ waiting.length }}
    {{ waiting.length === 1 ? 'entry waits' : 'entries wait' }} here to be sent;
    {{ unkept ? 'this browser keeps nothing: do not close the page.' : 'nothing is lost.' }}
  </VAlert>
  <RefusedList :list="refused" @keep-there="(w) => emit('keepThere', w)" @forget="(w) => emit('forget', w)" />
</template>
