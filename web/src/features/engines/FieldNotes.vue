<script setup lang="ts">
defineProps<{ problems: string[]; warnings?: string[] }>()
</script>

<template>
  <div v-if="problems.length || warnings?.length">
    <p v-for="p in problems" :key="p" class="problem" role="alert">{{ p }}</p>
    <p v-for="w in warnings ?? []" :key="w" class="odd quiet">{{ w }}</p>
  </div>
</template>

<style scoped>
p {
  padding: 4px 12px;
  border-left: 6px solid var(--tight);
  font-size: 17px;
  line-height: 1.3;
}

.odd {
  border-left: 6px dotted var(--undecided);
}
</style>
