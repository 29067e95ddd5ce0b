<script setup lang="ts">
/** How a leaf feels, as something to tap: narrow where five stand in a row. */
defineProps<{ felt?: boolean; narrow?: boolean }>()
</script>

<template>
  <VBtn class="feel" :class="{ felt, narrow, narrows: narrow }" :aria-pressed="felt"><slot /></VBtn>
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
