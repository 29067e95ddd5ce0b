<script setup lang="ts" generic="T extends string | number">
import { vRadios } from './radios'

const model = defineModel<T>({ required: true })
defineProps<{ label: string; options: { value: T; title: string }[]; small?: boolean }>()
</script>

<template>
  <div v-radios class="mx-pick" role="radiogroup" :aria-label="label">
    <button
      v-for="o in options"
      :key="o.value"
      type="button"
      role="radio"
      class="mx-btn"
      :class="{ on: model === o.value, small }"
      :aria-checked="model === o.value"
      @click="model = o.value"
    >
      {{ o.title }}
    </button>
    <slot />
  </div>
</template>
