<script setup lang="ts">
import { computed } from 'vue'

const model = defineModel<number | undefined>({ required: true })
defineProps<{ label: string; unit?: string; error?: boolean; placeholder?: string }>()
const text = computed({
  get: () => (model.value === undefined ? '' : String(model.value)),
  set: (t: string) => {
    const plain = String(t ?? '')
      .trim()
      .replace(',', '.')
    if (plain === '') model.value = undefined
    else if (!Number.isNaN(Number(plain))) model.value = Number(plain)
  },
})
</script>

<template>
  <VTextField
    v-model.lazy="text"
    :label="label"
    :suffix="unit"
    :error="error"
    :placeholder="placeholder"
    inputmode="decimal"
    hide-details
    density="comfortable"
    persistent-placeholder
  />
</template>
