<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

/** Opens the handbook where it tells why, and comes back to where it was asked. */
const props = defineProps<{
  page: 'schools' | 'drag' | 'adjusters' | 'heat' | 'wrong'
  /** What is meant of it: a school and a stop, a kind of adjuster. */ of?: Record<string, string | number>
  /** The place on the page. */ at?: string
}>()
const route = useRoute()
const to = computed(() => ({
  path: `/handbook/${props.page}`,
  query: { ...props.of, back: route.path },
  hash: props.at ? `#${props.at}` : '',
}))
</script>

<template>
  <RouterLink :to="to" class="why-link brass fs-16 font-weight-bold"><slot>Why?</slot></RouterLink>
</template>

<style scoped>
/* As tall as a finger, and no higher than the line that it stands in. */
.why-link {
  display: inline-block;
  min-height: 56px;
  margin: -18px 0;
  min-width: 56px;
  padding: 18px 8px;
}
</style>
