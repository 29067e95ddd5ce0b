<script setup lang="ts">
import { computed, ref } from 'vue'
import type { EngineView, Schemas } from '@/shared/api/client'
import NumberField from '@/shared/NumberField.vue'
import PickOne from '@/shared/PickOne.vue'
import { counter, meterName, sent, shown } from '@/shared/mine'
import { choices } from '@/shared/words'

/** The sheet of another shop, typed off: its day, its counter, and the gaps it tells. */
const props = defineProps<{
  visit: Schemas['OutsideVisit'] | null
  engine: EngineView
  counts: 'km' | 'h'
  trouble: string
}>()
const emit = defineEmits<{ keep: [visit: Schemas['OutsideVisit']]; back: [] }>()

const on = ref(props.visit?.on ?? '')
const meter = ref(props.visit ? shown(props.visit) : undefined)
const shop = ref(props.visit?.shop ?? '')
const state = ref<'' | 'cold' | 'hot'>(props.visit?.state ?? '')
const gaps = ref(
  Object.fromEntries(
    props.engine.valves.map((v) => {
      const had = props.visit?.valves.find((x) => x.valve === v.name)
      return [v.name, { found: had?.found_mm, left: had?.left_mm }]
    }),
  ),
)
const slips = ref<Record<string, string>>({})
const told = computed(() =>
  Object.entries(gaps.value)
    .filter(([, g]) => g.found !== undefined || g.left !== undefined)
    .map(([valve, g]) => ({ valve, found_mm: g.found, left_mm: g.left })),
)
/** What is missing yet, in words; empty: nothing. */
const missing = computed(() => {
  if (Object.values(slips.value).some(Boolean)) return 'A figure is none yet.'
  if (!on.value) return 'Its day is missing.'
  if (!shop.value.trim()) return 'Whose sheet it is, is missing.'
  if (!state.value) return 'Cold or hot is not said yet.'
  return told.value.length ? '' : 'No gap is typed yet.'
})
function keep() {
  const { odometer_km, hours } = sent(props.counts, meter.value) as { odometer_km?: number; hours?: number }
  const of = { on: on.value, shop: shop.value.trim(), state: state.value as 'cold' | 'hot', valves: told.value }
  emit('keep', { ...of, ...(hours ? { hours } : {}), ...(odometer_km ? { odometer_km } : {}) })
}
</script>

<template>
  <div class="sheet edged rounded on-panel pa-4 d-grid ga-4">
    <VAlert v-if="trouble" role="alert">{{ trouble }}</VAlert>
    <p class="quiet">
      What it was felt with nobody here knows: its gaps count as certain to some three hundredths of a millimetre.
    </p>
    <div class="fits-160 d-grid ga-3">
      <VTextField v-model="on" label="Day on the sheet" type="date" density="comfortable" hide-details />
      <NumberField v-model="meter" :label="`Its ${meterName(counts)}, if told`" :of="counter(counts)" whole />
      <VTextField v-model="shop" label="Whose sheet" maxlength="100" density="comfortable" hide-details />
    </div>
    <div>
      <p class="quiet fs-16 mb-1">Felt</p>
      <PickOne v-model="state" label="Felt cold or hot" :options="choices({ cold: 'Cold', hot: 'Hot' })" may-be-none />
    </div>
    <div class="valves d-grid ga-2">
      <template v-for="v in engine.valves" :key="v.name">
        <b class="align-self-center">{{ v.name }}</b>
        <NumberField
          v-model="gaps[v.name]!.found"
          :label="`${v.name} as found`"
          of="length"
          @slip="(s) => (slips[`${v.name} found`] = s)"
        />
        <NumberField
          v-model="gaps[v.name]!.left"
          :label="`${v.name} as left`"
          of="length"
          @slip="(s) => (slips[`${v.name} left`] = s)"
        />
      </template>
    </div>
    <div class="do d-flex flex-wrap align-center ga-2">
      <VBtn size="small" @click="emit('back')">Go back</VBtn>
      <VBtn size="small" variant="flat" :disabled="missing !== ''" @click="keep">Keep the sheet</VBtn>
      <span class="quiet" aria-live="polite">{{ missing }}</span>
    </div>
  </div>
</template>

<style scoped>
.valves {
  grid-template-columns: 60px 1fr 1fr;
}

@media (width >= 900px) {
  .valves {
    grid-template-columns: repeat(2, 60px 1fr 1fr);
  }
}
</style>
