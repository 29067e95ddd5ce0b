<script setup lang="ts">
defineProps<{ title: string; text?: string; tone?: 'plain' | 'trouble' }>()
</script>

<template>
  <section class="note" :class="tone" :role="tone === 'trouble' ? 'alert' : undefined">
    <h2>{{ title }}</h2>
    <p v-if="text" class="quiet">{{ text }}</p>
    <div v-if="$slots.default" class="do"><slot /></div>
  </section>
</template>

<style scoped>
.note {
  display: grid;
  gap: 12px;
  padding: 28px;
  border: 2px dashed var(--line);
  border-radius: 6px;
}

.note.trouble {
  border: 0;
  border-left: 8px solid var(--tight);
  background: var(--panel);
}

h2 {
  font-size: 28px;
  line-height: 1.2;
}

.do {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  margin-top: 8px;
}
</style>
