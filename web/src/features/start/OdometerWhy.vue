<script setup lang="ts">
/** Why a counter shows less than it did before. */
defineProps<{ showed: string }>()
const why = defineModel<string>({ required: true })
const usual = ['New instrument', 'Last time was a slip']
</script>

<template>
  <div class="why d-flex flex-wrap ga-2">
    <p role="status">It showed {{ showed }} last time. A slip is corrected above; else say why it shows less.</p>
    <VBtn v-for="r in usual" :key="r" size="small" @click="why = r">{{ r }}</VBtn>
    <VTextField v-model="why" label="Why it shows less" maxlength="200" hide-details />
  </div>
</template>

<style scoped>
.why > p,
.why > .v-input {
  flex: 1 0 100%;
}
</style>
