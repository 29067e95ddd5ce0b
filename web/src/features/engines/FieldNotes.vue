<script setup lang="ts">
defineProps<{ problems: string[]; warnings?: string[] }>()
</script>

<template>
  <div v-if="problems.length || warnings?.length">
    <p v-for="p in problems" :key="p" class="problem py-1 px-3 fs-16" role="alert">{{ p }}</p>
    <p v-for="w in warnings ?? []" :key="w" class="odd quiet py-1 px-3 fs-16">{{ w }}</p>
  </div>
</template>

<style scoped>
p {
  border-left: 6px solid var(--tight);
  line-height: 1.3;
}

.odd {
  border-left: 6px dotted var(--undecided);
}
</style>
