<script setup lang="ts">
import TopBar from '@/shared/TopBar.vue'
import StateNote from '@/shared/StateNote.vue'
</script>

<template>
  <TopBar title="Not found" />
  <main class="page">
    <StateNote
      title="There is no page at this address."
      text="It may have been mistyped, or the job was kept in another data file."
    >
      <RouterLink class="mx-btn primary" to="/">Go to the bay board</RouterLink>
    </StateNote>
  </main>
</template>
