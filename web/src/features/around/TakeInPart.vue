<script setup lang="ts">
import { computed, ref } from 'vue'
import type { JobView } from '@/shared/api/client'
import type { Doing } from '@/features/bench/useJob'
import { counter, mine, shown } from '@/shared/mine'
import { when } from '@/shared/units'
import SoundPart from './SoundPart.vue'
import { complaints } from '@/shared/complaints'

const props = defineProps<{ view: JobView }>()
const emit = defineEmits<{ do: [doing: Doing]; next: [] }>()

const said = computed(() => props.view.state.taken_in)
const chosen = ref<string[]>(said.value?.complaints ?? [])
const note = ref(said.value?.note ?? '')
const sealed = computed(() => props.view.state.phase === 'done')
const before = computed(() => props.view.before)
/** What the counter showed then. */
const ran = computed(() => {
  const meter = shown(before.value ?? {})
  return meter ? mine(counter(props.view.vehicle.counts)).say(meter) : ''
})

function toggle(c: string) {
  chosen.value = chosen.value.includes(c) ? chosen.value.filter((x) => x !== c) : [...chosen.value, c]
}
function keep() {
  emit('do', {
    kind: 'taken_in',
    complaints: chosen.value as (typeof complaints)[number]['value'][],
    note: note.value.trim() || undefined,
  })
  emit('next')
}
</script>

<template>
  <section class="take d-grid ga-3">
    <article v-if="before" class="before d-grid ga-1 py-3 px-4 on-panel">
      <h3 class="fs-20">Last job, {{ [when(before.at), ran].filter(Boolean).join(', ') }}</h3>
      <p v-if="before.outcome">{{ before.outcome }}</p>
      <p class="quiet">
        Found {{ before.tight }} tight and {{ before.loose }} loose; signed by {{ before.by }}.
        <RouterLink :to="`/jobs/${before.id}/sheet`">Its sheet</RouterLink>
      </p>
      <ul v-if="before.later.length" class="mx-0 mt-1 mb-0 ps-5 undecided font-weight-bold">
        <li v-for="l in before.later" :key="l">Left for now: {{ l }}</li>
      </ul>
    </article>
    <h2 class="fs-30">What is it in for?</h2>
    <div class="tiles fills-220 d-grid ga-2" role="group" aria-label="Complaint">
      <VBtn
        v-for="c in complaints"
        :key="c.value"
        class="tile justify-start fs-20"
        :class="{ on: chosen.includes(c.value) }"
        :disabled="sealed"
        :aria-pressed="chosen.includes(c.value)"
        @click="toggle(c.value)"
      >
        <span class="text-left"
          >{{ c.title }}<small v-if="c.points" class="d-block quiet fs-15">{{ c.points }}</small></span
        >
      </VBtn>
    </div>
    <VTextField v-model="note" label="In their words" maxlength="400" hide-details :disabled="sealed" />
    <SoundPart :view="view" :sealed="sealed" @do="(d) => emit('do', d)" />
    <VBtn v-if="!sealed" class="go tall-64 fs-22" variant="flat" size="large" @click="keep">{{
      said ? 'Keep the change' : 'Taken in'
    }}</VBtn>
  </section>
</template>

<style scoped>
.before {
  border-left: 8px solid var(--edge);
}

.tile {
  --v-btn-height: 72px;
}

.tile.on {
  border-color: var(--brass);
  background: var(--wash);
  box-shadow: inset 0 0 0 1px var(--brass);
}
</style>
