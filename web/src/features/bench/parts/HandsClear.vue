<script setup lang="ts">
import { computed } from 'vue'
import { programTime } from '@/shared/useQueue'
import { useBench } from '../useBench'
import { useClear } from '../useClear'

/** With a helper at the crank: hands are clear is said here, by a tap and by no key, before he is shown how far to turn. */
const props = defineProps<{ helper: string }>()
const { view } = useBench()
const { left, trouble, clear, stop } = useClear(view, programTime)
const says = computed(() => `The helper (${props.helper}) may turn: ${left.value} s`)
</script>

<template>
  <div class="clear d-grid ga-2">
    <template v-if="left">
      <p class="says fs-22" role="status">{{ says }}</p>
      <VBtn class="stop" size="large" @click="stop">Stop – hands are in again</VBtn>
    </template>
    <VBtn v-else class="hands" variant="flat" size="large" @click="clear">Hands clear – helper may turn</VBtn>
    <VAlert v-if="trouble" role="alert">{{ trouble }}</VAlert>
  </div>
</template>

<style scoped>
.hands,
.stop {
  min-height: 84px;
  font-size: 26px;
}

.stop {
  border: 3px solid var(--tight);
}

.says {
  margin: 0;
}
</style>
