<script setup lang="ts">
import SightGlyph from './SightGlyph.vue'

/** Something that may be seen on the engine, as a picture and a word to tap. */
defineProps<{ what: InstanceType<typeof SightGlyph>['$props']['what']; on: boolean }>()
</script>

<template>
  <VBtn class="sight justify-start py-1 px-2" :class="{ on }"><SightGlyph :what="what" /><slot /></VBtn>
</template>

<style scoped>
.sight {
  --v-btn-height: 64px;
}

.sight :deep(.v-btn__content) {
  gap: 10px;
  justify-content: start;
  line-height: 1.2;
  text-align: left;
}

@media (width <= 480px) {
  .sight {
    padding: 4px 6px;
    font-size: 16px;
  }

  .sight :deep(.glyph) {
    width: 34px;
  }

  .sight :deep(.v-btn__content) {
    gap: 6px;
  }
}
</style>
