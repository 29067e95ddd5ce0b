<script setup lang="ts">
import { vRadios } from '@/shared/radios'
import { decimals } from '@/shared/decimal'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import PickOne from '@/shared/PickOne.vue'
import FieldNotes from './FieldNotes.vue'
import type { Sheet } from './useEditor'

const sheet = defineModel<Sheet>({ required: true })
const props = defineProps<{
  perCylinder: number
  orders: Schemas['UsualOrder'][]
  source: string
  said: (location: string) => string[]
  warned: (location: string) => string[]
}>()
const emit = defineEmits<{ reshape: [layout: string, cylinders: number, valves: number] }>()

const layouts = [
  { value: 'inline', title: 'Inline' },
  { value: 'vee', title: 'V' },
  { value: 'flat', title: 'Flat' },
  { value: 'other', title: 'Other' },
]
const numbers = computed(() => Array.from({ length: sheet.value.cylinders }, (_, i) => i + 1))
const same = (a: number[], b: number[]) => a.length === b.length && a.every((x, i) => x === b[i])
const shape = (layout: string, cylinders: number, valves: number) => emit('reshape', layout, cylinders, valves)

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
    <PickOne
      :model-value="sheet.layout"
      label="Layout"
      :options="layouts"
      @update:model-value="(l) => shape(l, sheet.cylinders, perCylinder)"
    />
    <div class="steps">
      <span class="step">
        <span class="quiet">Cylinders</span>
        <button
          class="mx-btn small"
          type="button"
          aria-label="One cylinder fewer"
          :disabled="sheet.cylinders <= 1"
          @click="shape(sheet.layout, sheet.cylinders - 1, perCylinder)"
        >
          −
        </button>
        <b class="figure" aria-live="polite">{{ sheet.cylinders }}</b>
        <button
          class="mx-btn small"
          type="button"
          aria-label="One cylinder more"
          :disabled="sheet.cylinders >= 16"
          @click="shape(sheet.layout, sheet.cylinders + 1, perCylinder)"
        >
          +
        </button>
      </span>
      <span class="step">
        <span class="quiet">Valves per cylinder</span>
        <button
          class="mx-btn small"
          type="button"
          aria-label="One valve fewer"
          :disabled="perCylinder <= 2"
          @click="shape(sheet.layout, sheet.cylinders, perCylinder - 1)"
        >
          −
        </button>
        <b class="figure" aria-live="polite">{{ perCylinder }}</b>
        <button
          class="mx-btn small"
          type="button"
          aria-label="One valve more"
          :disabled="perCylinder >= 5"
          @click="shape(sheet.layout, sheet.cylinders, perCylinder + 1)"
        >
          +
        </button>
      </span>
    </div>
    <FieldNotes :problems="[...said('cylinders'), ...said('layout')]" />
  </section>
  <section>
    <h2>Firing order</h2>
    <p class="order figure" aria-live="polite">{{ sheet.firing_order.join('-') || '–' }}</p>
    <div v-if="orders.length" v-radios class="mx-pick" role="radiogroup" aria-label="Usual firing orders">
      <button
        v-for="o in orders"
        :key="o.order.join()"
        type="button"
        role="radio"
        class="mx-btn figure"
        :class="{ on: same(o.order, sheet.firing_order) }"
        :aria-checked="same(o.order, sheet.firing_order)"
        @click="sheet.firing_order = [...o.order]"
      >
        {{ o.order.join('-') }}
      </button>
    </div>
    <p v-if="orders.length" class="quiet small">Usual orders: {{ source }}.</p>
    <p class="quiet small">Another order: tap the cylinders as they fire.</p>
    <div class="mx-pick" role="group" aria-label="Cylinders, in the order they fire">
      <button
        v-for="c in numbers"
        :key="c"
        type="button"
        class="mx-btn figure number"
        :class="{ used: sheet.firing_order.length < sheet.cylinders && sheet.firing_order.includes(c) }"
        :aria-label="`Cylinder ${c} fires next`"
        @click="tap(c)"
      >
        {{ c }}
      </button>
      <button class="mx-btn" type="button" @click="sheet.firing_order = sheet.firing_order.slice(0, -1)">
        Take back
      </button>
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
.steps,
.step {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}

.steps {
  gap: 28px;
}

.step b {
  min-width: 34px;
  font-size: 30px;
  text-align: center;
}

.order {
  font-size: 30px;
  font-weight: 700;
  line-height: 1.2;
  overflow-wrap: anywhere;
}

.small {
  font-size: 16px;
}

.number {
  min-width: 58px;
  font-size: 22px;
}

.used {
  opacity: 0.45;
}
</style>
