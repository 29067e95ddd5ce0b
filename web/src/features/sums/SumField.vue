<script setup lang="ts">
import type { Field } from './sums'

/** One thing that a calculator asks for: a choice, lines, or a figure. */
defineProps<{ field: Field; label: string; suffix?: string; wrong: boolean }>()
const value = defineModel<string>()
</script>

<template>
  <VSelect
    v-if="field.kind === 'choice'"
    v-model="value"
    :items="field.options"
    :label="label"
    :error="wrong"
    hide-details
  />
  <VTextarea
    v-else-if="field.kind === 'lines' || field.kind === 'lengths'"
    v-model="value"
    :label="label"
    :hint="field.hint"
    :persistent-hint="Boolean(field.hint)"
    :hide-details="!field.hint"
    :error="wrong"
    rows="2"
    auto-grow
    class="mono"
  />
  <VTextField
    v-else
    v-model="value"
    :label="label"
    :suffix="suffix"
    :hint="field.hint"
    :persistent-hint="Boolean(field.hint)"
    :hide-details="!field.hint"
    :error="wrong"
    inputmode="decimal"
    class="mono"
  />
</template>

<style scoped>
.mono :deep(input),
.mono :deep(textarea) {
  font-family: var(--figures);
  font-size: 20px;
}
</style>
