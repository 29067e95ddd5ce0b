<script setup lang="ts">
import { verdictPaths } from './engine/shapes'
import type { Verdict } from './api/client'

defineProps<{ verdict: Verdict }>()
</script>

<template>
  <svg class="glyph flex-0-0" :class="verdict" viewBox="-18 -18 36 36" aria-hidden="true">
    <path :d="verdictPaths[verdict].fill" />
    <path class="line sw-3" :d="verdictPaths[verdict].line" />
  </svg>
</template>

<style scoped>
.glyph {
  width: 1.2em;
  height: 1.2em;
}

.glyph path {
  fill: currentcolor;
}

.glyph .line {
  fill: none;
  stroke: currentcolor;
}

.in {
  color: var(--in);
}

.tight {
  color: var(--tight);
}

.loose {
  color: var(--loose);
}

.undecided {
  color: var(--undecided);
}
</style>
