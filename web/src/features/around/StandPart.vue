<script setup lang="ts">
import { computed, ref } from 'vue'
import type { JobView } from '@/shared/api/client'
import type { Doing } from '@/features/bench/useJob'
import AppDialog from '@/shared/AppDialog.vue'
import { handOf } from '@/shared/hand'
import { person, speakTo } from '@/shared/mine'
import { when } from '@/shared/units'
import { named } from '@/shared/waits'
import WaitsPick, { type Deferral } from '@/shared/WaitsPick.vue'

/** How a job stands that somebody leaves: it waits for something, or another mechanic goes on with it. */
const props = defineProps<{ view: JobView }>()
const emit = defineEmits<{ do: [doing: Doing] }>()

const hands = computed(() => props.view.state.hands)
const hand = computed(() => handOf(props.view))
const waiting = ref(false)
const waits = ref<Deferral>({ waits_for: 'parts' })
function wait() {
  emit('do', { kind: 'waiting', ...waits.value, until: waits.value.until?.trim() || undefined })
  waiting.value = false
}

const handing = ref(false)
const to = ref('')
const note = ref('')
/** Whoever is at this screen is offered first, where that is another one than who is at the job. */
function ask() {
  to.value = person() && person() !== hand.value ? person() : ''
  note.value = ''
  handing.value = true
}
function over() {
  emit('do', { kind: 'handed_over', to: to.value.trim(), note: note.value.trim() || undefined })
  speakTo(to.value.trim())
  handing.value = false
}
</script>

<template>
  <section class="stand d-grid ga-2" aria-label="Who is at it, and what it waits for">
    <p
      v-if="view.state.waits_said"
      class="waits d-flex flex-wrap ga-3 align-center py-2 px-4 on-panel fs-20"
      role="status"
    >
      <span
        >Parked, waits for <b>{{ view.state.waits_said }}</b>.</span
      >
      <VBtn size="small" @click="emit('do', { kind: 'waiting' })">Carry on</VBtn>
    </p>
    <p v-if="hands.length" class="quiet">
      {{ hand }} went on with it, {{ when(hands.at(-1)!.from) }}, after
      {{ hands.length > 1 ? hands.at(-2)!.name : view.mechanic
      }}{{ hands.at(-1)!.note ? `: ${hands.at(-1)!.note}` : '' }}.
    </p>
    <div class="do">
      <VBtn v-if="!view.state.waits_said" size="small" @click="waiting = true">Park it…</VBtn>
      <VBtn size="small" @click="ask">Hand it over…</VBtn>
    </div>
    <AppDialog v-model="waiting" title="What does it wait for?" :width="560">
      <p class="quiet">The job stays open where it is; the board says what it waits for until somebody goes on.</p>
      <WaitsPick v-model="waits" />
      <div class="do">
        <VBtn @click="waiting = false">Go back</VBtn>
        <VBtn variant="flat" :disabled="!named(waits)" @click="wait">Park it</VBtn>
      </div>
    </AppDialog>
    <AppDialog v-model="handing" title="Who goes on with it?" :width="560">
      <p class="quiet">Everything stays where it is. What locking does to a gap is foreseen for the new hands.</p>
      <VTextField v-model="to" label="Mechanic" maxlength="100" hide-details />
      <VTextField v-model="note" label="What to know (E2 is next, nut stiff)" maxlength="400" hide-details />
      <div class="do">
        <VBtn @click="handing = false">Go back</VBtn>
        <VBtn variant="flat" :disabled="!to.trim() || to.trim() === hand" @click="over">Hand over</VBtn>
      </div>
    </AppDialog>
  </section>
</template>

<style scoped>
.waits {
  border-left: 8px dotted var(--undecided);
}

.do {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
</style>
