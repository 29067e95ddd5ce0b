<script setup lang="ts">
import { RouterView } from 'vue-router'
import { notOpened } from './arrival'
</script>

<template>
  <VApp>
    <VAlert v-if="notOpened" class="not-opened no-print">
      {{ notOpened }}
      <template #append><VBtn size="small" @click="notOpened = ''">Understood</VBtn></template>
    </VAlert>
    <RouterView v-slot="{ Component, route }">
      <component :is="Component" :key="String(route.params.id ?? route.name)" />
    </RouterView>
  </VApp>
</template>
