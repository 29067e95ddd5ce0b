<script setup lang="ts">
import { ref } from 'vue'
import { usualSets } from './leafLine'

/** A new set of leaves, written in one line or taken as it is commonly sold. */
defineEmits<{ take: [line: string] }>()
const line = ref('')
</script>

<template>
  <form class="d-grid ga-2" @submit.prevent="$emit('take', line)">
    <VTextField
      v-model="line"
      label="All leaves in one line"
      placeholder="0.05 0.10 0.15 … 0.50"
      hide-details
      persistent-placeholder
    />
    <div class="d-flex flex-wrap ga-2">
      <VBtn type="submit" :disabled="!line.trim()">Take these leaves</VBtn>
      <VBtn v-for="s in usualSets" :key="s.title" @click="$emit('take', s.line)">{{ s.title }}</VBtn>
    </div>
  </form>
</template>
