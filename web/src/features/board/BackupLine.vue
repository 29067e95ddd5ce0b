<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { answered, api, type Schemas } from '@/shared/api/client'
import { backupWords } from '@/shared/backupWords'

/** That the newest backup is too old, or that none could be made: said on the board until it is mended. */
const backups = ref<Schemas['Backups'] | null>(null)
onMounted(async () => {
  backups.value = await answered(api.GET('/api/v1/backups')).catch(() => null)
})
</script>

<template>
  <VAlert v-if="backups?.old || backups?.trouble" class="mb-4" role="alert">
    {{ backupWords(backups) }}
    <template #append><VBtn size="small" to="/shop">Backups</VBtn></template>
  </VAlert>
</template>
