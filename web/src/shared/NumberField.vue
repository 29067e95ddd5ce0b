<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { decimal, slip } from '@/shared/decimal'

const model = defineModel<number | undefined>({ required: true })
defineProps<{ label: string; unit?: string; error?: boolean; placeholder?: string }>()
/** What was typed and is no figure. */
const typed = ref<string | null>(null)
watch(model, () => (typed.value = null))
const text = computed({
  get: () => typed.value ?? (model.value === undefined ? '' : String(model.value)),
  set: (t: string) => {
    const text = String(t ?? '')
    const figure = decimal(text)
    typed.value = figure === null && text.trim() !== '' ? text : null // a slip stays, with what is wrong beside it
    if (text.trim() === '') model.value = undefined
    else if (figure !== null) model.value = figure
  },
})
</script>

<template>
  <VTextField
    v-model.lazy="text"
    :label="label"
    :suffix="unit"
    :error="error || typed !== null"
    :error-messages="typed === null ? [] : [slip(typed)]"
    :placeholder="placeholder"
    inputmode="decimal"
    hide-details="auto"
    density="comfortable"
    persistent-placeholder
  />
</template>
