<script setup lang="ts">
import { onScopeDispose, ref } from 'vue'
import { comesIn, slides, sounds } from './drag'

/** A leaf that goes into a gap, as hard as it pulls, and as it sounds. */
const at = ref(0)
let frame = 0
onScopeDispose(() => cancelAnimationFrame(frame))
function go(pull: number) {
  cancelAnimationFrame(frame)
  const lasts = slides(pull)
  sounds(pull, lasts)
  const began = performance.now()
  const step = (now: number) => {
    const t = Math.min(1, (now - began) / 1000 / lasts)
    at.value = comesIn(pull, t)
    if (t < 1) frame = requestAnimationFrame(step)
  }
  frame = requestAnimationFrame(step)
}
function out() {
  cancelAnimationFrame(frame)
  at.value = 0
}
defineExpose({ go, out })
</script>

<template>
  <svg class="gap d-block w-100" viewBox="0 0 240 76" aria-hidden="true">
    <rect class="f-panel s-quiet sw-2" x="130" y="6" width="100" height="24" rx="4" />
    <rect class="f-panel s-quiet sw-2" x="130" y="46" width="100" height="24" rx="4" />
    <g :transform="`translate(${at * 100} 0)`">
      <rect class="f-brass" x="6" y="34" width="124" height="8" />
      <circle class="f-none s-brass sw-4" cx="10" cy="38" r="8" />
    </g>
  </svg>
</template>

<style scoped>
.gap {
  max-width: 260px;
  margin: auto;
}
</style>
