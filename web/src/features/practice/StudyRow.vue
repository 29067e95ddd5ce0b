<script setup lang="ts">
/** A study in the list of them: when it was begun, what it is or came to; one that goes on stands out. */
defineProps<{ began: string; /** How far it has come; empty: it has ended. */ goesOn: string }>()
defineEmits<{ open: [] }>()
</script>

<template>
  <button
    type="button"
    class="study d-flex flex-wrap ga-4 px-4 tall-48 align-center edged rounded on-panel text-left"
    :class="{ 'bar-brass': goesOn }"
    @click="$emit('open')"
  >
    <b>{{ began }}</b>
    <span><slot /></span>
    <b v-if="goesOn" class="brass">go on: {{ goesOn }}</b>
  </button>
</template>

<style scoped>
.study {
  color: inherit;
  cursor: pointer;
}
</style>
