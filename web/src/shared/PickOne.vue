<script setup lang="ts" generic="V extends string | number, O extends { value: V; title?: string }">
import { vRadios } from './radios'

/** One choice of several: Tab comes to it once, arrow keys go through it. A slot may draw each choice. */
defineOptions({ inheritAttrs: false })
const model = defineModel<V>({ required: true })
defineProps<{
  label: string
  options: readonly O[]
  small?: boolean
  /** Large choices of several lines, side by side. */ tiles?: boolean
  /** A second tap on what is chosen chooses nothing. */ mayBeNone?: boolean
}>()
</script>

<template>
  <VBtnToggle
    v-radios
    class="pick"
    :class="{ tiles }"
    role="radiogroup"
    :aria-label="label"
    :model-value="model"
    :mandatory="!mayBeNone"
    selected-class="on"
    v-bind="$attrs"
    @update:model-value="(v?: V) => (model = v ?? ('' as V))"
  >
    <VBtn
      v-for="o in options"
      :key="o.value"
      role="radio"
      :class="{ tile: tiles }"
      :value="o.value"
      :size="small ? 'small' : 'default'"
      :aria-checked="model === o.value"
    >
      <slot :option="o">{{ o.title }}</slot>
    </VBtn>
    <slot name="after" />
  </VBtnToggle>
</template>

<style scoped>
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 12px;
}

.tile {
  --v-btn-height: 88px;

  justify-content: stretch;
  padding: 12px 16px;
}

.tile :deep(.v-btn__content) {
  display: grid;
  flex: 1;
  gap: 2px;
  align-self: start;
  justify-content: start;
  text-align: left;
}

.tile :deep(.v-btn__content) > * {
  min-width: 0;
  overflow-wrap: anywhere;
}

.tile :deep(b) {
  font-size: 21px;
  line-height: 1.2;
}

.tile :deep(b)::first-letter {
  text-transform: uppercase;
}
</style>
