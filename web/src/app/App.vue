<script setup lang="ts">
import { RouterView } from 'vue-router'
import { notOpened } from './arrival'
</script>

<template>
  <VApp>
    <div v-if="notOpened" class="not-opened no-print" role="alert">
      <span>{{ notOpened }}</span>
      <button class="mx-btn small" type="button" @click="notOpened = ''">Understood</button>
    </div>
    <RouterView v-slot="{ Component, route }">
      <component :is="Component" :key="String(route.params.id ?? route.name)" />
    </RouterView>
  </VApp>
</template>

<style scoped>
.not-opened {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 16px;
  padding: 10px 22px;
  background: var(--undecided);
  color: var(--ground);
  font-weight: 700;
}
</style>
