<template>
  <VBtn class="more" size="small">More</VBtn>
</template>

<style scoped>
/* On a phone it stands in the first line, beside how far the job is. */
@media (width <= 480px) {
  .more {
    order: -1;
  }
}
</style>
