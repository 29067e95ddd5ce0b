<script setup lang="ts">
defineProps<{ title: string; faults: { location: string; message: string }[]; after?: string }>()
</script>

<template>
  <VAlert variant="tonal" color="">
    <b class="fs-20">{{ title }}</b>
    <ul v-if="faults.length" class="d-grid ga-1 my-1 mx-0 ps-5">
      <li v-for="f in faults" :key="f.location + f.message">
        <code class="brass in-figures">{{ f.location || 'file' }}</code> {{ f.message }}
      </li>
    </ul>
    <p v-if="after" class="quiet">{{ after }}</p>
  </VAlert>
</template>
