<script setup lang="ts">
import { computed } from 'vue'
import type { Task } from './useAround'

/** What is next around the bench: one step, or those that may be ticked off with it, which a second tap opens to be ticked one by one. */
const props = defineProps<{ group: Task[] }>()
defineEmits<{ done: []; open: []; over: [] }>()
const now = computed(() => props.group[0]!)
const many = computed(() => props.group.length > 1)
</script>

<template>
  <section class="next edged-brass d-grid ga-3 py-4 px-5 rounded" aria-live="polite">
    <h2 class="lh-tight">{{ many ? now.group : now.text }}.</h2>
    <ul v-if="many" class="ma-0 ps-5 fs-20">
      <li v-for="t in group" :key="t.id">
        {{ t.text }}<small v-if="t.caution" class="quiet d-block">{{ t.caution }}</small>
      </li>
    </ul>
    <p v-else-if="now.caution" class="caution ps-3">{{ now.caution }}</p>
    <div class="do d-flex flex-wrap ga-2">
      <VBtn v-if="many" @click="$emit('open')">One by one</VBtn>
      <VBtn v-else @click="$emit('over')">Skip…</VBtn>
      <VBtn class="go fs-22" variant="flat" size="large" @click="$emit('done')"
        >{{ many ? `All ${group.length} done` : 'Done' }} <kbd>Enter</kbd></VBtn
      >
    </div>
    <slot />
  </section>
</template>

<style scoped>
.caution {
  border-left: 6px solid var(--undecided);
}
</style>
