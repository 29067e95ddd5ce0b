<script setup lang="ts">
import { computed, ref } from 'vue'
import { newID, type JobView } from '@/shared/api/client'
import type { Doing } from '@/features/bench/useJob'
import FoldAway from '@/shared/FoldAway.vue'
import NumberField from '@/shared/NumberField.vue'

/** What comes off this engine and is not on its list yet: tapped as it comes off, kept on its sheet for the next job. */
const props = defineProps<{ view: JobView }>()
const emit = defineEmits<{ do: [doing: Doing] }>()

const usual = [
  'Engine cover',
  'Coil connectors',
  'Plug leads',
  'Breather hose',
  'Vacuum hose',
  'Intake hose',
  'Air box',
  'Throttle cable',
  'Fuel line clip',
  'Loom clips',
  'Earth strap',
  'Dipstick tube stay',
]
const listed = computed(() => props.view.state.tasks.map((t) => t.text.toLowerCase()))
const left = computed(() => usual.filter((u) => !listed.value.some((t) => t.startsWith(u.toLowerCase()))))
const text = ref('')
const fastener = ref('')
const note = ref('')
const socket = ref<number>()

function off(what: string, more: { fastener?: string; note?: string; socket_mm?: number } = {}) {
  emit('do', { kind: 'stripped', step: newID().slice(0, 8), text: what, ...more })
}
function other() {
  off(text.value.trim(), {
    fastener: fastener.value.trim() || undefined,
    note: note.value.trim() || undefined,
    socket_mm: socket.value || undefined,
  })
  text.value = fastener.value = note.value = ''
  socket.value = undefined
}
</script>

<template>
  <FoldAway title="Something else to take off? Tap it: it is added to this engine’s list">
    <div class="usual d-grid ga-2" role="group" aria-label="What came off">
      <VBtn v-for="u in left" :key="u" @click="off(u)">{{ u }}</VBtn>
    </div>
    <div class="fields fits-200 d-grid ga-2 align-start">
      <VTextField v-model="text" label="Something else" maxlength="120" hide-details density="comfortable" />
      <VTextField v-model="fastener" label="Its fastener" maxlength="120" hide-details density="comfortable" />
      <NumberField v-model="socket" label="Socket" unit="mm" />
      <VTextField v-model="note" label="What to mind" maxlength="120" hide-details density="comfortable" />
      <VBtn :disabled="!text.trim()" @click="other">It is off</VBtn>
    </div>
    <p class="quiet">
      It goes back on in the reverse, and stays on the list of {{ view.engine.name }} for the next job. The engine’s
      editor changes the list.
    </p>
  </FoldAway>
</template>

<style scoped>
.usual {
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
}

.usual :deep(.v-btn) {
  --v-btn-height: 56px;
}
</style>
