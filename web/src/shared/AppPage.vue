<script setup lang="ts">
import StateNote from './StateNote.vue'
import TopBar from './TopBar.vue'

/** The scaffold of every page: its bar, and its content once that is read; until then, or where it fails, it says so. */
withDefaults(
  defineProps<{
    title: string
    sub?: string
    back?: string
    backTo?: string
    /** The bar stays in view while the page scrolls. */ stays?: boolean
    /** The page lays itself out and brings its own main. */ bare?: boolean
    /** The bar’s own content has a way to the night theme where it is narrow. */ lean?: boolean
    /** Whether there is something to show. */ ready?: boolean
    /** What went wrong while reading, where there is nothing to show. */ trouble?: string
    /** What could not be done, as a title. */ failed?: string
    /** What is being waited for. */ waiting?: string
  }>(),
  { ready: true, sub: '', back: '', backTo: '/', trouble: '', failed: '', waiting: 'Reading…' },
)
defineEmits<{ again: [] }>()
</script>

<template>
  <TopBar :title="title" :sub="sub" :back="back" :back-to="backTo" :stays="stays" :lean="lean"
    ><slot name="bar"
  /></TopBar>
  <slot v-if="ready && bare" />
  <main v-else class="page">
    <slot v-if="ready" />
    <StateNote v-else-if="trouble" tone="trouble" :title="failed" :text="trouble">
      <VBtn variant="flat" @click="$emit('again')">Try again</VBtn>
      <slot name="else" />
    </StateNote>
    <template v-else>
      <p class="quiet" role="status">{{ waiting }}</p>
      <VProgressCircular class="going mt-3" indeterminate color="primary" :aria-label="waiting" />
    </template>
  </main>
</template>

<style scoped>
/* What is there at once does not flash a bar. */
.going {
  animation: late 0.4s steps(1, start) both;
}

@keyframes late {
  from {
    visibility: hidden;
  }
}
</style>
