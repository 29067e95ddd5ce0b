<script setup lang="ts">
import type { Waiting } from '@/shared/useQueue'
import { feelWord } from '@/shared/words'
import { leaves, mm } from '@/shared/units'

defineProps<{ list: Waiting[] }>()
const emit = defineEmits<{ keepThere: [waits: Waiting]; forget: [waits: Waiting] }>()

/** What was done, in words: "E3: 0.25 drag". */
function what({ body }: Waiting): string {
  const valve = 'valve' in body ? `${body.valve}: ` : ''
  if (body.kind === 'reading') return `${valve}${leaves(body.leaves_mm ?? [])} ${feelWord[body.feel]}`
  if (body.kind === 'dial') return `${valve}dial ${mm(body.gap_mm ?? 0)}`
  return `${valve}${body.kind.replaceAll('_', ' ')}`
}
</script>

<template>
  <section v-if="list.length" class="refused d-grid flex-0-0 ga-2 overflow-y-auto" aria-label="Not taken">
    <VAlert v-for="w in list" :key="w.body.id" class="one" variant="tonal" color="" role="note">
      <p>
        <b>{{ what(w) }}</b> {{ w.refused }}
      </p>
      <VBtn
        v-if="w.type === 'urn:metronix:crank_moved' && ['reading', 'dial'].includes(w.body.kind)"
        size="small"
        @click="emit('keepThere', w)"
      >
        Keep it for where it was made
      </VBtn>
      <VBtn size="small" @click="emit('forget', w)">Remove</VBtn>
    </VAlert>
  </section>
</template>

<style scoped>
.refused {
  max-height: 30%;
}

.one :deep(.v-alert__content) {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}

.one p {
  flex: 1 1 220px;
}
</style>
