<script setup lang="ts">
defineProps<{ title: string; faults: { location: string; message: string }[]; after?: string }>()
</script>

<template>
  <VAlert variant="tonal" color="">
    <b>{{ title }}</b>
    <ul v-if="faults.length">
      <li v-for="f in faults" :key="f.location + f.message">
        <code>{{ f.location || 'file' }}</code> {{ f.message }}
      </li>
    </ul>
    <p v-if="after" class="quiet">{{ after }}</p>
  </VAlert>
</template>

<style scoped>
b {
  font-size: 21px;
}

ul {
  display: grid;
  gap: 4px;
  margin: 6px 0;
  padding-left: 22px;
}

code {
  color: var(--brass);
  font-family: var(--figures);
}
</style>
