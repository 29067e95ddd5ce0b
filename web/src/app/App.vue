<script setup lang="ts">
import { RouterView } from 'vue-router'
import { later, whenViewed } from '@/shared/later'
import { people } from '@/shared/session'
import { notOpened } from './arrival'
import { home } from './home'

const SignIn = later(() => import('@/features/people/SignIn.vue'))
// What the first page may not read says by itself that nobody is here.
whenViewed(people.load)
whenViewed(() => import('./shell'))
</script>

<template>
  <VApp :class="{ fits: $route.meta.fits }">
    <VAlert v-if="notOpened" class="not-opened no-print">
      {{ notOpened }}
      <template #append><VBtn size="small" @click="notOpened = ''">Understood</VBtn></template>
    </VAlert>
    <a v-if="home" class="demo no-print fs-16 py-1 px-4" :href="home">The demo’s workshop. Back to your own</a>
    <SignIn v-if="people.locked.value" />
    <RouterView v-else v-slot="{ Component, route }">
      <component :is="Component" :key="String(route.params.id ?? route.name) + people.comes.value" />
    </RouterView>
  </VApp>
</template>

<style scoped>
.demo {
  display: block;
  color: var(--brass);
  background: var(--sunk);
}
</style>
