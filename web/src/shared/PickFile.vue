<script setup lang="ts">
import { nextTick, ref } from 'vue'

defineProps<{ label: string; accept: string }>()
const emit = defineEmits<{ picked: [file: File] }>()
const chosen = ref<File | null>(null)

/** The field is empty again at once, so that the same file can be picked twice. */
async function take(file: File | File[] | null) {
  if (!(file instanceof File)) return
  chosen.value = file
  emit('picked', file)
  await nextTick()
  chosen.value = null
}
</script>

<template>
  <VFileInput
    class="file flex-0-0 max-100"
    :model-value="chosen"
    :label="label"
    :accept="accept"
    @update:model-value="take"
  />
</template>

<style scoped>
.file {
  width: 250px;
}
</style>
