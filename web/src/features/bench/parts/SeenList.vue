<script setup lang="ts">
/** What was said to be seen, each with a way to take it back. */
defineProps<{ list: string[] }>()
defineEmits<{ drop: [index: number] }>()
</script>

<template>
  <ul class="d-grid ga-2 ma-0 pa-0 list-none">
    <li
      v-for="(text, i) in list"
      :key="text"
      class="d-flex align-center justify-space-between ga-3 py-1 ps-3 pe-2 bar-brass on-panel fs-20"
    >
      <span>{{ text }}</span>
      <VBtn size="small" :aria-label="`Remove: ${text}`" @click="$emit('drop', i)"> Remove </VBtn>
    </li>
  </ul>
</template>

<style scoped>
span::first-letter {
  text-transform: uppercase;
}
</style>
