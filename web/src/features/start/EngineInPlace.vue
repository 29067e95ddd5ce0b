<script setup lang="ts">
import { computed } from 'vue'
import { choices, layoutName, rotations, thermalStates } from '@/shared/words'
import { reads, useRead } from '@/shared/api/reads'
import { valvesAt } from '@/shared/engine/arcs'
import HeadDrawing from '@/shared/engine/HeadDrawing.vue'
import FoldAway from '@/shared/FoldAway.vue'
import PickOne from '@/shared/PickOne.vue'
import RowPicture from './RowPicture.vue'
import { numbers, type useEngineInPlace } from './useEngineInPlace'

/** An engine made where a job is started, from a few taps and the two limits of its card. */
const props = defineProps<{ making: ReturnType<typeof useEngineInPlace> }>()
const { form, usual, chosen, intake, exhaust, called, look, trouble } = props.making

const { data: gears } = useRead(reads.gears())
const kinds = computed(() => (gears.value ?? []).map((g) => ({ value: g.kind, title: g.title })))
const units = choices({ mm: 'mm', thou: 'thousandths of an inch', in: 'inch' })
const sources = ['Maker’s book', 'Plate on the engine', 'Told by somebody'].map((s) => ({ value: s, title: s }))
const orders = computed(() =>
  (usual.value?.engines ?? []).map((e, value) => ({
    value,
    title: `${layoutName(e.layout, form.value.cylinders)} · ${e.firing_order.join('-')}`,
  })),
)
const drawn = computed(() => look.value?.engine)
</script>

<template>
  <div class="making d-grid ga-3">
    <div>
      <span class="quiet fs-15 d-block" aria-hidden="true">Cylinders</span>
      <PickOne
        v-model="form.cylinders"
        label="Cylinders"
        :options="numbers.map((n) => ({ value: n, title: `${n}` }))"
      />
    </div>
    <div v-if="usual">
      <span class="quiet fs-15 d-block" aria-hidden="true">Firing order ({{ usual.source }})</span>
      <PickOne v-model="form.usual" class="figure" label="Firing order" :options="orders" />
    </div>
    <div v-if="chosen">
      <span class="quiet fs-15 d-block" aria-hidden="true"
        >How the valves stand, front to the left: round is intake, square is exhaust</span
      >
      <PickOne
        v-slot="{ option: { p } }"
        v-model="form.rows"
        label="How the valves stand"
        :options="chosen.patterns.map((p, value) => ({ value, p }))"
      >
        <RowPicture :bank="p.banks[0]!" :says="p.says" />
      </PickOne>
    </div>
    <div v-if="drawn" class="head shrinks" aria-label="The head, drawn">
      <HeadDrawing :engine="drawn" :crank="null" :shown="valvesAt(drawn, null)" bare />
    </div>
    <div class="fits-240 d-grid ga-3">
      <VTextField
        v-model="form.intake"
        label="Intake clearance"
        placeholder="0.25, or 0.20–0.30"
        persistent-placeholder
        :error="intake.trouble !== ''"
        :messages="intake.trouble || intake.says"
        inputmode="text"
      />
      <VTextField
        v-model="form.exhaust"
        label="Exhaust clearance"
        placeholder="0.30, or 0.25–0.35"
        persistent-placeholder
        :error="exhaust.trouble !== ''"
        :messages="exhaust.trouble || exhaust.says"
        inputmode="text"
      />
    </div>
    <div class="d-flex flex-wrap ga-4">
      <div>
        <span class="quiet fs-15 d-block" aria-hidden="true">The figures are in</span>
        <PickOne v-model="form.unit" label="Unit of the figures" :options="units" />
      </div>
      <div>
        <span class="quiet fs-15 d-block" aria-hidden="true">They hold with the engine</span>
        <PickOne v-model="form.state" label="Thermal state" :options="thermalStates" />
      </div>
      <div>
        <span class="quiet fs-15 d-block" aria-hidden="true">They come from</span>
        <PickOne v-model="form.source" label="Source of the figures" :options="sources" />
      </div>
    </div>
    <FoldAway title="More, where you know it: name, adjuster, running direction">
      <div class="d-grid ga-3">
        <VTextField
          v-model="form.name"
          label="Name of the engine"
          :placeholder="called"
          persistent-placeholder
          maxlength="120"
          hide-details
        />
        <VSelect v-model="form.adjuster" :items="kinds" label="Adjuster type" clearable hide-details />
        <PickOne v-model="form.rotation" label="Running direction, seen from the front" :options="rotations" />
      </div>
    </FoldAway>
    <div v-if="look?.assumed.length" class="quiet fs-16">
      <b>Assumed until you say otherwise:</b>
      <ul class="ma-0 ps-5">
        <li>It runs {{ form.rotation }}, seen from the front.</li>
        <li v-for="a in look.assumed" :key="a">{{ a }}</li>
      </ul>
    </div>
    <VAlert v-if="trouble" role="alert">{{ trouble }}</VAlert>
    <p class="quiet fs-16">
      Another order, other rows, several cards:
      <RouterLink to="/engines/new?for=start">describe it in full</RouterLink>.
    </p>
  </div>
</template>

<style scoped>
.head {
  max-width: 560px;
}

.making :deep(.v-btn:has(.rows)) {
  max-width: 100%;
  padding: 6px 10px;
}
</style>
