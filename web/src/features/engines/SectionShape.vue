<script setup lang="ts">
import { decimals } from '@/shared/decimal'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import PickOne from '@/shared/PickOne.vue'
import { layouts } from '@/shared/words'
import FieldNotes from './FieldNotes.vue'
import type { Shape, Sheet } from './useEditor'

const sheet = defineModel<Sheet>({ required: true })
const props = defineProps<{
  perCylinder: number
  orders: Schemas['UsualOrder'][]
  source: string
  said: (location: string) => string[]
  warned: (location: string) => string[]
}>()
const emit = defineEmits<{ reshape: [change: Partial<Shape>] }>()

const numbers = computed(() => Array.from({ length: sheet.value.cylinders }, (_, i) => i + 1))

function tap(cylinder: number) {
  sheet.value.firing_order = [
    ...(sheet.value.firing_order.length >= sheet.value.cylinders ? [] : sheet.value.firing_order),
    cylinder,
  ]
}

const angles = computed({
  get: () => (sheet.value.firing_angles_deg ?? []).join(' '),
  set: (t: string) => {
    const list = decimals(t)
    if (list.length) sheet.value.firing_angles_deg = list
    else delete sheet.value.firing_angles_deg
  },
})
const orderProblems = computed(() => props.said('firing_order'))
</script>

<template>
  <section>
    <h2>Engine</h2>
    <VTextField
      v-model.lazy="sheet.name"
      label="Name the workshop knows it by"
      maxlength="120"
      hide-details
      :error="said('name').length > 0"
    />
    <FieldNotes :problems="said('name')" :warnings="warned('name')" />
    <div>
      <span class="quiet fs-15 d-block" aria-hidden="true">Layout</span>
      <PickOne
        :model-value="sheet.layout"
        label="Layout"
        :options="layouts"
        @update:model-value="(layout) => emit('reshape', { layout })"
      />
    </div>
    <div class="steps fits-240 d-grid ga-7">
      <VNumberInput
        :model-value="sheet.cylinders"
        label="Cylinders"
        :min="1"
        :max="16"
        control-variant="split"
        @update:model-value="(n: number | null) => n && emit('reshape', { cylinders: n })"
      />
      <VNumberInput
        :model-value="perCylinder"
        label="Valves per cylinder"
        :min="2"
        :max="5"
        control-variant="split"
        @update:model-value="(n: number | null) => n && emit('reshape', { valves: n })"
      />
    </div>
    <FieldNotes :problems="[...said('cylinders'), ...said('layout')]" />
  </section>
  <section>
    <h2>Firing order</h2>
    <p class="order figure font-weight-bold lh-tight fs-30" aria-live="polite">
      {{ sheet.firing_order.join('-') || '–' }}
    </p>
    <PickOne
      v-if="orders.length"
      class="figure"
      :model-value="sheet.firing_order.join('-')"
      label="Usual firing orders"
      :options="orders.map((o) => ({ value: o.order.join('-'), title: o.order.join('-') }))"
      @update:model-value="(o) => (sheet.firing_order = o.split('-').map(Number))"
    />
    <p v-if="orders.length" class="quiet small fs-16">Usual orders: {{ source }}.</p>
    <p class="quiet small fs-16">Another order: tap the cylinders as they fire.</p>
    <div class="pick" role="group" aria-label="Cylinders, in the order they fire">
      <VBtn
        v-for="c in numbers"
        :key="c"
        class="figure number fs-22"
        :class="{ used: sheet.firing_order.length < sheet.cylinders && sheet.firing_order.includes(c) }"
        :aria-label="`Cylinder ${c} fires next`"
        @click="tap(c)"
      >
        {{ c }}
      </VBtn>
      <VBtn @click="sheet.firing_order = sheet.firing_order.slice(0, -1)"> Undo the last </VBtn>
    </div>
    <FieldNotes :problems="orderProblems" :warnings="warned('firing_order')" />
    <VTextField
      v-model.lazy="angles"
      label="Firing angles, where firing is uneven"
      placeholder="0 90 270 360 …"
      persistent-placeholder
      suffix="°"
      hide-details
      :error="said('firing_angles_deg').length > 0"
    />
    <FieldNotes :problems="said('firing_angles_deg')" :warnings="warned('firing_angles_deg')" />
  </section>
</template>

<style scoped>
.order {
  overflow-wrap: anywhere;
}

.number {
  min-width: 58px;
}

.used {
  opacity: 0.45;
}
</style>
