<script setup lang="ts">
import AppPage from '@/shared/AppPage.vue'
import StateNote from '@/shared/StateNote.vue'
</script>

<template>
  <AppPage title="Not found">
    <StateNote
      title="There is no page at this address."
      text="It may have been mistyped, or the job was kept in another data file."
    >
      <VBtn variant="flat" to="/">Go to the bay board</VBtn>
    </StateNote>
  </AppPage>
</template>
