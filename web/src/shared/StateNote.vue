<script setup lang="ts">
defineProps<{ title: string; text?: string; tone?: 'plain' | 'trouble' }>()
</script>

<template>
  <VAlert
    class="note pa-7 font-weight-regular"
    :class="tone"
    :variant="tone === 'trouble' ? 'tonal' : 'outlined'"
    color=""
    :role="tone === 'trouble' ? 'alert' : 'note'"
  >
    <h2 class="mb-3 fs-28 lh-tight">{{ title }}</h2>
    <p v-if="text" class="quiet">{{ text }}</p>
    <div v-if="$slots.default" class="do d-flex flex-wrap ga-3 mt-5"><slot /></div>
  </VAlert>
</template>

<style scoped>
.note {
  border-color: var(--line);
}

.note.trouble {
  border-color: var(--tight);
}
</style>
