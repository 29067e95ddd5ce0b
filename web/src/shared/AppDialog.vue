<script setup lang="ts">
import { watch } from 'vue'
import { guard } from './guard'
import { useReturnFocus } from './useReturnFocus'

/** Something asked or told over the page; the focus returns to what had it before. */
const open = defineModel<boolean>({ required: true })
defineProps<{ title: string; width: number }>()
useReturnFocus(open)
watch(open, guard.begin, { flush: 'sync' })
</script>

<template>
  <VDialog v-model="open" :max-width="width" :aria-label="title">
    <div class="dialog">
      <h2>{{ title }}</h2>
      <slot />
    </div>
  </VDialog>
</template>

<style scoped>
.dialog {
  display: grid;
  gap: 16px;
  padding: 26px;
  border: 2px solid var(--line);
  border-radius: 8px;
  background: var(--panel);
  color: var(--ink);
}
</style>
