<script setup lang="ts">
/** What was just done, at the foot of the page, with a way to take it back where there is one. */
const model = defineModel<string>({ required: true })
defineProps<{ action?: string }>()
defineEmits<{ act: [] }>()
</script>

<template>
  <VSnackbar
    :model-value="model !== ''"
    :timeout="action ? 20000 : 6000"
    location="bottom"
    role="status"
    class="told"
    content-class="told-what"
    @update:model-value="(on: boolean) => !on && (model = '')"
  >
    {{ model }}
    <template v-if="action" #actions>
      <VBtn variant="outlined" size="small" @click="$emit('act')">{{ action }}</VBtn>
    </template>
  </VSnackbar>
</template>

<style scoped>
.told :deep(.told-what) {
  border-left: 8px solid var(--in);
  border-radius: 0;
  background: var(--panel);
  color: var(--ink);
}

.told :deep(.v-snackbar__content) {
  font: inherit;
  font-size: 18px;
}
</style>
