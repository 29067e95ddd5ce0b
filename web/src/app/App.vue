<script setup lang="ts">
import { RouterView } from 'vue-router'
</script>

<template>
  <VApp>
    <RouterView v-slot="{ Component, route }">
      <component :is="Component" :key="String(route.params.id ?? route.name)" />
    </RouterView>
  </VApp>
</template>
