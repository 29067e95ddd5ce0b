<script setup lang="ts">
import { computed } from 'vue'
import { when } from '@/shared/units'
import { anothers, type Waiting } from '@/shared/useQueue'
import { answerTo } from '../refusals'
import type { Line } from '../useJob'
import RefusedList from './RefusedList.vue'

/** What stands between this screen and the program: what was refused, what waits to be sent, and why. */
const props = defineProps<{ line: Line }>()
const emit = defineEmits<{ answer: [waits: Waiting]; forget: [list: Waiting[]] }>()
/** What somebody else did here and has not sent yet, and what whoever is here may do about it. */
const anothersHere = computed(() => props.line.waiting.filter(anothers))
const instead = computed(() => anothersHere.value[0] && answerTo(anothersHere.value[0]))
</script>

<template>
  <VAlert v-if="line.refusal && line.refusal !== line.refused[0]?.refused" class="refusal" variant="tonal" color="">{{
    line.refusal
  }}</VAlert>
  <VAlert v-if="anothersHere.length" class="refusal" variant="tonal" color="" role="note">
    {{ anothersHere.length }} {{ anothersHere.length === 1 ? 'entry' : 'entries' }} of
    {{ anothersHere[0]!.body.author }} {{ anothersHere.length === 1 ? 'waits' : 'wait' }} here until
    {{ anothersHere[0]!.body.author }} signs in; nothing is lost.
    <VBtn v-if="instead" class="mt-2" @click="anothersHere.forEach((w) => emit('answer', w))">{{ instead.says }}</VBtn>
  </VAlert>
  <VAlert v-else-if="line.offline" class="refusal" variant="tonal" color="">
    {{ line.told || 'The program cannot be reached.' }} {{ line.waiting.length }}
    {{ line.waiting.length === 1 ? 'entry waits' : 'entries wait' }} here to be sent;
    {{ line.unkept ? 'this browser keeps nothing: do not close the page.' : 'nothing is lost.' }}
  </VAlert>
  <VAlert v-else-if="line.keptAt" class="refusal" variant="tonal" color="" role="note">
    The program cannot be reached. This is the job as it was {{ when(line.keptAt) }}; what you do is kept here.
  </VAlert>
  <p v-else-if="line.waiting.length" class="on-the-way fs-15" role="status">
    {{ line.waiting.length }} on the way to the disk
  </p>
  <RefusedList
    :list="line.refused"
    :theirs="line.theirs"
    @answer="(w) => emit('answer', w)"
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
