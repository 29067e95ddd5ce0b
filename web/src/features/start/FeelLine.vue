<script setup lang="ts">
/** A feel that was measured with real leaves, with when and who agreed. */
defineProps<{ feel: string; says: string }>()
</script>

<template>
  <p class="quiet" role="note">Your feel, ± {{ feel }} mm: {{ says }}</p>
</template>
