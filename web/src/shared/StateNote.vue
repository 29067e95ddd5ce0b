<script setup lang="ts">
defineProps<{ title: string; text?: string; tone?: 'plain' | 'trouble' }>()
</script>

<template>
  <VAlert
    class="note"
    :class="tone"
    :variant="tone === 'trouble' ? 'tonal' : 'outlined'"
    color=""
    :role="tone === 'trouble' ? 'alert' : 'note'"
  >
    <h2>{{ title }}</h2>
    <p v-if="text" class="quiet">{{ text }}</p>
    <div v-if="$slots.default" class="do"><slot /></div>
  </VAlert>
</template>

<style scoped>
.note {
  padding: 28px;
  border-color: var(--line);
  font-weight: 400;
}

.note.trouble {
  border-color: var(--tight);
}

h2 {
  margin-bottom: 12px;
  font-size: 28px;
  line-height: 1.2;
}

.do {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  margin-top: 20px;
}
</style>
