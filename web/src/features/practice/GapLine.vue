<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'

/** A valve's gap on a line of millimetres: its window, how it truly was and is, and what was believed of it. */
const props = defineProps<{ result: Schemas['PracticeResult']; from: number; to: number }>()
const width = 400
const x = (mm: number) => ((mm - props.from) / (props.to - props.from)) * width
const r = computed(() => props.result)
const says = computed(
  () =>
    `${r.value.valve}: was ${r.value.found_mm} mm, is ${r.value.left_mm} mm, limits ${r.value.lower_mm} to ${r.value.upper_mm} mm`,
)
</script>

<template>
  <svg class="d-block w-100" :viewBox="`0 0 ${width} 30`" role="img" :aria-label="says">
    <line class="s-line sw-2" x1="0" :x2="width" y1="15" y2="15" />
    <rect class="window" :x="x(r.lower_mm)" y="9" :width="x(r.upper_mm) - x(r.lower_mm)" height="12" rx="3" />
    <circle class="f-none s-ink sw-2" :cx="x(r.found_mm)" cy="15" r="6" />
    <circle class="f-ink" :cx="x(r.left_mm)" cy="15" r="5" />
    <line
      v-if="r.believed_mm !== null"
      class="s-brass sw-4"
      :x1="x(r.believed_mm)"
      :x2="x(r.believed_mm)"
      y1="2"
      y2="28"
    />
  </svg>
</template>

<style scoped>
.window {
  fill: var(--in);
  opacity: 0.45;
}
</style>
