<script setup lang="ts">
/** Something folded away under its title until it is wanted. */
defineProps<{ title: string }>()
</script>

<template>
  <VExpansionPanels class="fold" flat>
    <VExpansionPanel :title="title" eager>
      <template #text><slot /></template>
    </VExpansionPanel>
  </VExpansionPanels>
</template>

<style scoped>
.fold :deep(.v-expansion-panel) {
  background: none;
}

.fold :deep(.v-expansion-panel-title) {
  gap: 12px;
  min-height: 56px;
  padding: 8px 0;
  color: var(--quiet);
  font-size: inherit;
}

.fold :deep(.v-expansion-panel-text__wrapper) {
  display: grid;
  gap: 12px;
  padding: 0 0 12px;
}
</style>
