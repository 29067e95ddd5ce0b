<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import NumberField from '@/shared/NumberField.vue'
import PickOne from '@/shared/PickOne.vue'
import { counter, mine, shown } from '@/shared/mine'
import OdometerWhy from './OdometerWhy.vue'
import SetInPlace from './SetInPlace.vue'
import { leavesAre, reasons, type useStart } from './useStart'

/** By which feelers a job is done, by whom, and why. */
const props = defineProps<{
  sets: Schemas['GaugeSet'][]
  /** What was chosen last time and is there no more. */ gone: string[]
  faults: Record<string, string>
  vehicle?: Schemas['Vehicle']
  /** What the counter showed, where it shows less now. */ backwards: string
}>()
const emit = defineEmits<{
  byHand: [what: 'set' | 'leaves']
  slip: [text: string]
  stored: [set: Schemas['GaugeSet']]
}>()
/** What is chosen, of the whole start. */
const form = defineModel<ReturnType<typeof useStart>['form']['value']>('form', { required: true })

const adding = ref(!props.sets.length)
function stored(set: Schemas['GaugeSet']) {
  adding.value = false
  emit('stored', set)
}
</script>

<template>
  <section class="d-grid ga-3">
    <h2 class="d-flex align-center ga-3 fs-26">
      <i class="d-grid place-center brass fs-20">3</i> Feelers, mechanic, reason
    </h2>
    <PickOne
      v-if="sets.length"
      v-slot="{ option: { g } }"
      v-model="form.set"
      label="Feeler set"
      :options="sets.map((g) => ({ value: g.id, g }))"
      tiles
      @update:model-value="$emit('byHand', 'set')"
    >
      <b>{{ g.name }}</b><span class="quiet">{{ g.leaves }} leaves</span>
    </PickOne>
    <VBtn v-if="!adding" class="justify-self-start" @click="adding = true">Another feeler set…</VBtn>
    <SetInPlace v-else @stored="stored">
      <VBtn v-if="sets.length" @click="adding = false">Cancel</VBtn>
    </SetInPlace>
    <p v-for="g in gone" :key="g" class="caution ps-3" role="note">{{ g }}</p>
    <span class="quiet fs-15 d-block" aria-hidden="true">Leaves</span>
    <PickOne
      v-model="form.leavesAre"
      label="Leaves"
      :options="leavesAre"
      small
      may-be-none
      @update:model-value="$emit('byHand', 'leaves')"
    />
    <div class="fits-240 d-grid ga-3 mt-2">
      <VTextField v-model="form.mechanic" label="Mechanic" maxlength="100" :error-messages="faults.mechanic" />
      <NumberField
        v-model="form.odometer"
        :label="vehicle?.counts === 'h' ? 'Running hours' : 'Odometer'"
        :of="counter(vehicle?.counts)"
        :placeholder="vehicle && shown(vehicle) ? `last ${mine(counter(vehicle.counts)).bare(shown(vehicle)!)}` : ''"
        whole
        :error="Boolean(faults.odometer_km || faults.hours)"
        :faults="faults.odometer_km || faults.hours"
        @slip="$emit('slip', $event)"
      />
    </div>
    <OdometerWhy v-if="backwards" v-model="form.odometerWhy" :showed="backwards" />
    <span class="quiet fs-15 d-block" aria-hidden="true">Reason</span>
    <PickOne
      v-model="form.reason"
      label="Reason"
      :options="reasons.map((r) => ({ value: r, title: r }))"
      small
      may-be-none
    />
  </section>
</template>

<style scoped>
.caution {
  border-left: 6px solid var(--undecided);
}

h2 i {
  width: 38px;
  height: 38px;
  border: 3px solid var(--brass);
  border-radius: 50%;
  font-style: normal;
}
</style>
