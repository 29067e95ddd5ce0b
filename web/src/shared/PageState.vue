<script setup lang="ts">
import StateNote from './StateNote.vue'

defineProps<{ trouble: string; title: string; waiting: string }>()
defineEmits<{ again: [] }>()
</script>

<template>
  <main class="page">
    <StateNote v-if="trouble" tone="trouble" :title="title" :text="trouble">
      <button class="mx-btn primary" type="button" @click="$emit('again')">Try again</button>
      <slot />
    </StateNote>
    <p v-else class="quiet" role="status">{{ waiting }}</p>
  </main>
</template>
