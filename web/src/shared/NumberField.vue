<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { decimal, slip } from '@/shared/decimal'
import { mine, type Kind } from '@/shared/mine'

/** One figure. Of a kind of quantity it is typed in the person's own unit and kept in the program's, with the other unit beside it. */
const model = defineModel<number | undefined>({ required: true })
const props = defineProps<{
  label: string
  unit?: string
  of?: Kind
  /** No part of it is kept. */ whole?: boolean
  error?: boolean
  placeholder?: string
  faults?: string
}>()
const emit = defineEmits<{ /** What was typed and is no figure; empty again once it is one. */ slip: [text: string] }>()
/** What was typed and is no figure. */
const typed = ref<string | null>(null)
watch(model, () => (typed.value = null))
watch(typed, (t) => emit('slip', t ?? ''))
const own = computed(() => (props.of ? mine(props.of) : null))
const read = (text: string) => {
  const figure = decimal(text)
  return props.whole && figure !== null && (figure < 0 || !Number.isInteger(figure)) ? null : figure
}
const wrong = (text: string) =>
  props.whole && decimal(text) !== null ? `“${text.trim()}” is no whole number from 0 up.` : slip(text)
const text = computed({
  get: () => typed.value ?? (model.value === undefined ? '' : String(own.value?.own(model.value) ?? model.value)),
  set: (t: string) => {
    const text = String(t ?? '')
    const figure = read(text)
    typed.value = figure === null && text.trim() !== '' ? text : null // a slip stays, with what is wrong beside it
    if (text.trim() === '') model.value = undefined
    else if (figure !== null) model.value = own.value?.kept(figure) ?? figure
  },
})
const beside = computed(() =>
  own.value && props.of !== 'hours' && model.value !== undefined ? `= ${own.value.other(model.value)}` : '',
)
</script>

<template>
  <VTextField
    v-model.lazy="text"
    :label="label"
    :suffix="own?.unit() ?? unit"
    :hint="beside"
    persistent-hint
    :error="error || typed !== null"
    :error-messages="typed === null ? faults : [wrong(typed)]"
    :placeholder="placeholder"
    :inputmode="whole ? 'numeric' : 'decimal'"
    hide-details="auto"
    density="comfortable"
    persistent-placeholder
  />
</template>
