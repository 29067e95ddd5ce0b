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
    @update:model-value="(on: boolean) => !on && (model = '')"
  >
    {{ model }}
    <template v-if="action" #actions>
      <VBtn size="small" @click="$emit('act')">{{ action }}</VBtn>
    </template>
  </VSnackbar>
</template>
