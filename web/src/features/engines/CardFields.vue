<script setup lang="ts">
import { ref } from 'vue'
import type { ClearanceCard, Stated } from './useEditor'
import PickOne from '@/shared/PickOne.vue'
import { thermalStates } from '@/shared/words'
import FieldNotes from './FieldNotes.vue'
import NumberField from '@/shared/NumberField.vue'

const card = defineModel<ClearanceCard>({ required: true })
const props = defineProps<{
  at: string
  said: (location: string) => string[]
  warned: (location: string) => string[]
}>()
defineEmits<{ remove: [] }>()

const kinds = ['intake', 'exhaust'] as const
const shapes = {
  tolerance: ['nominal', 'tolerance'],
  limits: ['lower', 'upper'],
} as const
type Unit = 'mm' | 'in'

const unitOf = (s: Stated): Unit =>
  Object.keys(s).some((k) => k.endsWith('_in')) && !Object.keys(s).some((k) => k.endsWith('_mm')) ? 'in' : 'mm'
const shapeOf = (s: Stated): keyof typeof shapes =>
  Object.keys(s).some((k) => k.startsWith('lower') || k.startsWith('upper')) ? 'limits' : 'tolerance'

/** The limits of a nominal and its tolerance, and back, to the nanometre or its tenth in inches: the window stays the same. */
function reshaped(a: number | undefined, b: number | undefined, to: keyof typeof shapes) {
  const exact = (x: number) => Number(x.toFixed(7))
  if (to === 'limits') {
    if (a === undefined) return [undefined, b]
    return b === undefined ? [a, undefined] : [exact(a - b), exact(a + b)]
  }
  if (a === undefined || b === undefined) return [a ?? b, undefined]
  return [exact((a + b) / 2), exact((b - a) / 2)]
}

/** Another way to state the same window; in another unit a figure is typed anew: 0.25 stays 0.25, and the program says where that cannot be. */
function restate(kind: (typeof kinds)[number], unit: Unit, shape: keyof typeof shapes) {
  const was = shown.value[kind]
  const [a, b] = shapes[was.shape].map((name) => card.value[kind][`${name}_${was.unit}`])
  const old = shape === was.shape ? [a, b] : reshaped(a, b, shape)
  const stated: Stated = {}
  shapes[shape].forEach((name, i) => {
    if (old[i] !== undefined) stated[`${name}_${unit}`] = old[i]
  })
  card.value[kind] = stated
  shown.value = { ...shown.value, [kind]: { unit, shape } }
}

const shown = ref(
  Object.fromEntries(kinds.map((k) => [k, { unit: unitOf(card.value[k]), shape: shapeOf(card.value[k]) }])) as Record<
    (typeof kinds)[number],
    { unit: Unit; shape: keyof typeof shapes }
  >,
)

function put(kind: (typeof kinds)[number], name: keyof Stated, value: number | undefined) {
  const stated = { ...card.value[kind] }
  if (value === undefined) delete stated[name]
  else stated[name] = value
  card.value[kind] = stated
}
function text(name: 'date' | 'remark' | 'distrusted', value: string) {
  if (value.trim()) card.value[name] = value.trim()
  else delete card.value[name]
}
function stone(on: boolean) {
  if (on) card.value.stone_cold = true
  else delete card.value.stone_cold
}
const problems = (kind: string) => props.said(`${props.at}.${kind}`)
</script>

<template>
  <fieldset class="card d-grid ga-2 ma-0 pa-3 edged rounded">
    <div class="row d-grid ga-2 align-center">
      <VTextField
        v-model.lazy="card.source"
        label="Source"
        maxlength="120"
        hide-details
        density="comfortable"
        :error="said(`${at}.source`).length > 0"
      />
      <PickOne v-model="card.state" label="Thermal state" :options="thermalStates" small />
      <NumberField
        v-if="card.state === 'cold'"
        v-model="card.max_engine_c"
        label="At most"
        of="temperature"
        placeholder="the usual"
      />
      <VBtn size="small" :aria-label="`Remove the card ${card.source}`" @click="$emit('remove')"> Remove </VBtn>
    </div>
    <div class="row more d-grid ga-2 align-center">
      <VTextField
        :model-value="card.date ?? ''"
        label="Its date"
        maxlength="120"
        hide-details
        density="comfortable"
        @change="(e: Event) => text('date', (e.target as HTMLInputElement).value)"
      />
      <VTextField
        :model-value="card.remark ?? ''"
        label="Remark"
        maxlength="400"
        hide-details
        density="comfortable"
        @change="(e: Event) => text('remark', (e.target as HTMLInputElement).value)"
      />
      <VSwitch
        v-if="card.state === 'cold'"
        :model-value="Boolean(card.stone_cold)"
        label="Stone cold"
        @update:model-value="(on) => stone(Boolean(on))"
      />
    </div>
    <VTextField
      :model-value="card.distrusted ?? ''"
      label="Do not use, because"
      maxlength="200"
      hide-details
      density="comfortable"
      @change="(e: Event) => text('distrusted', (e.target as HTMLInputElement).value)"
    />
    <FieldNotes :problems="[...said(`${at}.source`), ...said(`${at}.max_engine_c`), ...said(`${at}.state`)]" />
    <div v-for="k in kinds" :key="k" class="row d-grid ga-2 align-center">
      <b class="kind">{{ k }}</b>
      <NumberField
        v-for="name in shapes[shown[k].shape]"
        :key="name"
        :model-value="card[k][`${name}_${shown[k].unit}`]"
        :label="name"
        :unit="shown[k].unit"
        :error="problems(k).length > 0"
        @update:model-value="(v) => put(k, `${name}_${shown[k].unit}`, v)"
      />
      <div class="pick">
        <VBtn
          size="small"
          :aria-label="`${k}: ${shown[k].unit === 'mm' ? 'inch' : 'mm'}`"
          @click="restate(k, shown[k].unit === 'mm' ? 'in' : 'mm', shown[k].shape)"
        >
          {{ shown[k].unit === 'mm' ? 'inch' : 'mm' }}
        </VBtn>
        <VBtn
          size="small"
          :aria-label="`${k}: ${shown[k].shape === 'limits' ? '±' : 'limits'}`"
          @click="restate(k, shown[k].unit, shown[k].shape === 'limits' ? 'tolerance' : 'limits')"
        >
          {{ shown[k].shape === 'limits' ? '±' : 'limits' }}
        </VBtn>
      </div>
      <FieldNotes class="wide" :problems="problems(k)" />
    </div>
    <FieldNotes :problems="[]" :warnings="warned(at)" />
  </fieldset>
</template>

<style scoped>
.row {
  grid-template-columns: minmax(120px, 1.6fr) repeat(3, auto);
}

.row.more {
  grid-template-columns: 1fr 2fr auto;
}

.row:has(.kind) {
  grid-template-columns: 84px 1fr 1fr auto;
}

.row:has(.kind) :deep(.problem) {
  grid-column: 1 / -1;
}

.row :deep(.v-text-field) {
  min-width: 96px;
}

.row :deep(.v-label) {
  white-space: nowrap;
}

@media (width <= 560px), (1000px < width <= 1200px) {
  .row,
  .row.more,
  .row:has(.kind) {
    grid-template-columns: 1fr 1fr;
  }

  .row > :first-child,
  .row.more > :last-child {
    grid-column: 1 / -1;
  }
}
</style>
