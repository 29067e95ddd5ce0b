<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'

/** What a job was done by, line by line. */
defineProps<{ facts: Schemas['SheetFact'][] }>()
</script>

<template>
  <dl class="facts fits-300 d-grid gr-2 gc-6 ma-0">
    <div v-for="f in facts" :key="f.label">
      <dt class="quiet fs-15">{{ f.label }}</dt>
      <dd class="ma-0">{{ f.text }}</dd>
    </div>
  </dl>
</template>
