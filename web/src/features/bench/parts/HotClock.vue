<script setup lang="ts">
import { computed, onScopeDispose, ref } from 'vue'

const props = defineProps<{ until: string; engineC: number }>()
const now = ref(Date.now())
const timer = window.setInterval(() => (now.value = Date.now()), 1000)
onScopeDispose(() => clearInterval(timer))
const left = computed(() => Math.floor((new Date(props.until).getTime() - now.value) / 1000))
const words = computed(() =>
  left.value > 0
    ? `${Math.floor(left.value / 60)}:${String(left.value % 60).padStart(2, '0')} left`
    : 'too late – re-check hot',
)
</script>

<template>
  <span class="hot" :class="{ over: left <= 0 }" role="timer"
    >Hot {{ Math.round(engineC) }} °C · <b class="figure">{{ words }}</b></span
  >
</template>

<style scoped>
.hot {
  padding: 8px 14px;
  border: 2px solid var(--tight);
  border-radius: 4px;
  color: var(--tight);
  white-space: nowrap;
}

.over {
  border-style: dashed;
}
</style>
