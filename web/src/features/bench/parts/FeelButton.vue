<script setup lang="ts">
import { bareButton } from '@/shared/bareButton'

/** How a leaf feels, as something to tap: narrow where five stand in a row. */
defineProps<{ word: string; felt?: boolean; narrow?: boolean; disabled?: boolean }>()
</script>

<template>
  <button
    type="button"
    :class="[bareButton, 'feel', { felt, narrow, narrows: narrow, 'v-btn--disabled': disabled }]"
    :aria-pressed="felt"
    :disabled="disabled"
  >
    <span class="v-btn__content">{{ word }}</span>
  </button>
</template>

<style scoped>
.feel {
  padding: 0 4px;
  color: var(--quiet);
}

.feel :deep(.v-btn__content) {
  white-space: nowrap;
}

.narrow :deep(.v-btn__content) {
  line-height: 1.1;
  white-space: normal;
}

.felt {
  border-color: var(--brass);
  background: var(--brass);
  color: var(--on-brass);
  font-weight: 700;
}

@media (width <= 1100px) {
  .feel {
    padding: 0 2px;
    font-size: 16px;
  }
}

@media (width <= 480px) {
  .feel {
    padding: 0 2px;
    font-size: 15px;
  }
}
</style>
