<script setup lang="ts">
import PickOne from '@/shared/PickOne.vue'
import { portSides } from '@/shared/words'
import FieldNotes from './FieldNotes.vue'
import NumberField from '@/shared/NumberField.vue'
import type { Sheet } from './useEditor'

const sheet = defineModel<Sheet>({ required: true })
defineProps<{ said: (location: string) => string[]; warned: (location: string) => string[] }>()

const numbers = (t: string) =>
  t
    .split(/[^\d]+/)
    .filter(Boolean)
    .map(Number)

function secondRow(bank: Sheet['banks'][number]) {
  if (bank.rows.length > 1) bank.rows = [bank.rows[0]!]
  else bank.rows = [...bank.rows, { side: bank.rows[0]?.side === 'left' ? 'right' : 'left', valves: '' }]
}
</script>

<template>
  <section>
    <h2>Banks and rows</h2>
    <p class="quiet small fs-16">
      Tap a valve on the drawing to make it intake or exhaust. Rows run from the front to the rear.
    </p>
    <fieldset v-for="(b, i) in sheet.banks" :key="i" class="bank d-grid ga-2 ma-0 pa-3 edged rounded">
      <div class="pair fits-200 d-grid ga-2 align-center">
        <VTextField v-model.lazy="b.name" label="Head" maxlength="60" hide-details density="comfortable" />
        <VTextField
          :model-value="b.cylinders.join(' ')"
          label="Cylinders, front to rear"
          hide-details
          density="comfortable"
          :error="said(`banks[${i}].cylinders`).length > 0"
          @change="(e: Event) => (b.cylinders = numbers((e.target as HTMLInputElement).value))"
        />
        <NumberField
          v-if="sheet.banks.length > 1"
          v-model="b.angle_deg"
          label="Bank angle, seen from the front"
          unit="°"
          :error="said(`banks[${i}].angle_deg`).length > 0"
        />
        <PickOne
          :model-value="b.intake_ports ?? ''"
          :label="`Intake side of ${b.name}, seen from the rear`"
          :options="portSides"
          small
          @update:model-value="(side) => (b.intake_ports = side || undefined)"
        />
      </div>
      <div v-for="(r, n) in b.rows" :key="n" class="row d-grid ga-2 align-center">
        <VTextField
          :model-value="r.valves"
          class="letters"
          :label="`Row ${b.rows.length > 1 ? r.side : ''} (I intake, E exhaust)`"
          hide-details
          density="comfortable"
          autocapitalize="characters"
          :error="said(`banks[${i}].rows[${n}]`).length > 0"
          @change="(e: Event) => (r.valves = (e.target as HTMLInputElement).value.trim().toUpperCase())"
        />
        <VBtn
          size="small"
          :aria-label="`Row ${n + 1} lies ${r.side}: change it`"
          @click="r.side = r.side === 'left' ? 'right' : 'left'"
        >
          {{ r.side }}
        </VBtn>
      </div>
      <FieldNotes :problems="said(`banks[${i}]`)" :warnings="warned(`banks[${i}]`)" />
      <VBtn class="more justify-self-start" size="small" @click="secondRow(b)">
        {{ b.rows.length > 1 ? 'One row only' : 'A second row' }}
      </VBtn>
    </fieldset>
    <FieldNotes :problems="said('banks').filter((m) => !sheet.banks.some((_, i) => said(`banks[${i}]`).includes(m)))" />
    <div class="pick">
      <VBtn
        size="small"
        @click="sheet.banks.push({ name: 'another bank', cylinders: [], rows: [{ side: 'left', valves: '' }] })"
      >
        Add bank
      </VBtn>
      <VBtn v-if="sheet.banks.length > 1" size="small" @click="sheet.banks.pop()"> Remove last bank </VBtn>
    </div>
  </section>
</template>

<style scoped>
.row {
  grid-template-columns: 1fr auto;
}

.letters :deep(input) {
  font-family: var(--figures);
  letter-spacing: 0.14em;
  text-transform: uppercase;
}
</style>
