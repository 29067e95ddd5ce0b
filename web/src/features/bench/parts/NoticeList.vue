<script setup lang="ts">
import type { Happening } from '@/shared/api/client'
import type { Waiting } from '@/shared/useQueue'
import RefusedList from './RefusedList.vue'

/** What stands between this screen and the program: what was refused, what waits to be sent, and why. */
defineProps<{
  waiting: Waiting[]
  refused: Waiting[]
  theirs: Happening[]
  offline: boolean
  told: string
  unkept: boolean
  refusal: string
}>()
const emit = defineEmits<{ keepThere: [waits: Waiting]; forget: [list: Waiting[]] }>()
</script>

<template>
  <VAlert v-if="refusal && refusal !== refused[0]?.refused" class="refusal" variant="tonal" color="">{{
    refusal
  }}</VAlert>
  <VAlert v-if="offline" class="refusal" variant="tonal" color="">
    {{ told || 'The program cannot be reached.' }} {{ waiting.length }}
    {{ waiting.length === 1 ? 'entry waits' : 'entries wait' }} here to be sent;
    {{ unkept ? 'this browser keeps nothing: do not close the page.' : 'nothing is lost.' }}
  </VAlert>
  <p v-else-if="waiting.length" class="on-the-way fs-15" role="status">{{ waiting.length }} on the way to the disk</p>
  <RefusedList
    :list="refused"
    :theirs="theirs"
    @keep-there="(w) => emit('keepThere', w)"
    @forget="(w) => emit('forget', w)"
  />
</template>

<style scoped>
/* Beside what is said, so that nothing moves when it comes and goes. */
.on-the-way {
  position: absolute;
  z-index: 2;
  top: 0;
  right: 0;
  padding: 2px 10px;
  background: var(--panel);
  color: var(--ink);
}
</style>
