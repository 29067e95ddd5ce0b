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
    <div class="dialog d-grid ga-4 pa-6 edged on-panel ink">
      <h2>{{ title }}</h2>
      <slot />
    </div>
  </VDialog>
</template>

<style scoped>
/* On a phone a long one is gone through by itself. */
.dialog {
  overflow-y: auto;
  border-radius: 8px;
}
</style>
