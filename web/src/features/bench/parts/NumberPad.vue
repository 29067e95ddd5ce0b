<script setup lang="ts">
withDefaults(defineProps<{ keys?: string[]; columns?: number }>(), {
  keys: () => ['7', '8', '9', 'Backspace', '4', '5', '6', '-', '1', '2', '3', '0', '.'],
  columns: 5,
})
const emit = defineEmits<{ key: [k: string] }>()
const names: Record<string, string> = { '-': 'minus', '.': 'point', Backspace: 'take back a digit' }
</script>

<template>
  <div
    class="pad d-grid ga-2"
    :class="{ five: columns === 5 }"
    :style="{ gridTemplateColumns: `repeat(${columns}, 1fr)` }"
  >
    <VBtn
      v-for="k in keys"
      :key="k"
      :class="{ wide: k === 'Backspace' || k === '-' }"
      :aria-label="names[k] ?? k"
      @click="emit('key', k)"
    >
      {{ k === '-' ? '−' : k === 'Backspace' ? '⌫' : k }}
    </VBtn>
  </div>
</template>

<style scoped>
/* In five columns, so that nought and the point stand in the lowest row. */
.five .wide {
  grid-column: span 2;
}

.pad .v-btn {
  padding: 0;
  font-size: 28px;
}
</style>
