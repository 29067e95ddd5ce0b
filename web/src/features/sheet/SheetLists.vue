<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'

/** What stands on the sheet besides the valves: sounds, findings, shims, exceptions, what was added later. */
defineProps<{ lists: Schemas['SheetList'][] }>()
</script>

<template>
  <section v-for="l in lists" :key="l.title" class="part d-grid ga-1">
    <h2 class="fs-22">{{ l.title }}</h2>
    <ul class="ma-0 ps-5">
      <li v-for="i in l.items" :key="i.text">
        {{ i.text }}
        <audio v-if="i.sound" class="no-print" controls preload="none" :src="`/api/v1/sounds/${i.sound}`" />
        <img v-if="i.photo" class="d-block my-1 mx-0" :src="`/api/v1/photos/${i.photo}`" :alt="i.text" />
      </li>
    </ul>
  </section>
</template>

<style scoped>
img {
  max-width: 320px;
  max-height: 240px;
}

.added {
  padding: 10px 16px;
  border-left: 6px solid var(--brass);
}

@media print {
  h2,
  ul,
  p {
    font-size: 13px;
  }
}
</style>
