<script setup lang="ts">
const emit = defineEmits<{ key: [k: string] }>()
const keys = ['7', '8', '9', '-', 'Backspace', '4', '5', '6', '.', '0', '1', '2', '3']
const names: Record<string, string> = { '-': 'minus', '.': 'point', Backspace: 'take back a digit' }
</script>

<template>
  <div class="pad">
    <button v-for="k in keys" :key="k" class="mx-btn" type="button" :aria-label="names[k] ?? k" @click="emit('key', k)">
      {{ k === '-' ? '−' : k === 'Backspace' ? '⌫' : k }}
    </button>
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  gap: 8px;
}

.pad .mx-btn {
  min-width: 0;
  padding: 0;
  min-height: 56px;
  font-size: 28px;
}
</style>
