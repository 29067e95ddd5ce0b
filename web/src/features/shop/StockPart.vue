<script lang="ts">
/** A line of the stock, as typed. */
export interface Counted {
  size: string
  count: string
}

/** A count as people write it down: a whole number, and an empty field is none of that size. */
export const whole = (t: string) => (/^\d{0,4}$/.test(t.trim()) ? Number(t) : null)
</script>

<script setup lang="ts">
import { computed, ref } from 'vue'
import { decimal } from '@/shared/decimal'
import FoldAway from '@/shared/FoldAway.vue'
import NumberField from '@/shared/NumberField.vue'
import { mm } from '@/shared/units'

/** The shims in stock, size by size, and whole kits of them added at once. */
const stock = defineModel<Counted[]>({ required: true })

/** A kit as it comes in its case: sizes in steps, so many of each. */
const kit = ref<{ from?: number; to?: number; step?: number; each?: number }>({ each: 1 })
const mostKit = 200
const kitSizes = computed(() => {
  const { from, to, step, each } = kit.value
  if (!from || !to || !step || !each || to < from || step <= 0 || !Number.isInteger(each)) return []
  const n = Math.floor((to - from) / step + 1e-9) + 1
  return n > mostKit ? [] : Array.from({ length: n }, (_, i) => mm(from + i * step))
})
/** What is in stock already is counted up. */
function addKit() {
  for (const size of kitSizes.value) {
    const has = stock.value!.find((s) => decimal(s.size) === decimal(size))
    if (has) has.count = String((whole(has.count) ?? 0) + kit.value.each!)
    else stock.value!.push({ size, count: String(kit.value.each) })
  }
  kit.value = { each: 1 }
}
</script>

<template>
  <p v-if="stock.length === 0" class="quiet">None listed. Stock is used before anything is ordered.</p>
  <div class="stock fills-280 d-grid ga-2">
    <div v-for="(s, i) in stock" :key="i" class="row d-grid ga-2 align-center">
      <VTextField v-model="s.size" label="Size" suffix="mm" inputmode="decimal" hide-details density="comfortable" />
      <VTextField v-model="s.count" label="How many" inputmode="numeric" hide-details density="comfortable" />
      <VBtn size="small" :aria-label="`Remove size ${s.size}`" @click="stock.splice(i, 1)"> ✕ </VBtn>
    </div>
  </div>
  <FoldAway title="Add a kit of shims or buckets">
    <div class="three fits-160 d-grid ga-3">
      <NumberField v-model="kit.from" label="From" unit="mm" />
      <NumberField v-model="kit.to" label="To" unit="mm" />
      <NumberField v-model="kit.step" label="Step" unit="mm" />
      <NumberField v-model="kit.each" label="Of each" />
    </div>
    <VBtn size="small" :disabled="!kitSizes.length" @click="addKit">
      Add {{ kitSizes.length || 'the' }} sizes to the list
    </VBtn>
  </FoldAway>
  <VBtn class="add justify-self-start" size="small" @click="stock.push({ size: '', count: '1' })"> Another size </VBtn>
</template>

<style scoped>
.row {
  grid-template-columns: 3fr 2fr auto;
}
</style>
