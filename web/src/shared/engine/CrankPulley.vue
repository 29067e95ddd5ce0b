<script setup lang="ts">
import { computed } from 'vue'

const props = defineProps<{
  crank: number | null
  rotation: 'clockwise' | 'anticlockwise'
  marks: number[]
  /** Shows an arrow: which way it is to be turned. */
  turning?: 'clockwise' | 'anticlockwise'
}>()

const sense = computed(() => (props.rotation === 'clockwise' ? 1 : -1))
// A mark that stands after TDC comes to the pointer later: it lies behind TDC against the running direction.
const at = (mark: number) => `rotate(${-sense.value * mark})`
</script>

<template>
  <svg
    class="pulley d-block w-100 h-100"
    viewBox="-62 -66 124 128"
    role="img"
    :aria-label="crank === null ? 'Crank pulley, place not known' : `Crank pulley at ${Math.round(crank)} degrees`"
  >
    <path class="pointer f-ink" d="M-7-64H7L0-52Z" />
    <circle class="f-panel s-quiet sw-3" r="48" />
    <circle class="f-ground s-quiet sw-3" r="16" />
    <g v-if="crank !== null" :transform="`rotate(${sense * crank})`">
      <line
        v-for="m in marks"
        :key="m"
        class="mark s-quiet sw-3"
        :class="{ tdc: m === 0 }"
        y1="-48"
        :y2="m === 0 ? -30 : -38"
        :transform="at(m)"
      />
    </g>
    <text v-else class="f-quiet fs-26 font-weight-bold anchor-middle" y="9">?</text>
    <g v-if="turning" class="arrow" :transform="`scale(${turning === 'clockwise' ? 1 : -1} 1)`">
      <path class="f-none s-brass sw-4" d="M-24 22A33 33 0 0 0 24 22" transform="rotate(180)" />
      <path class="f-brass" d="M18-32L33-24L21-12Z" transform="translate(2 2)" />
    </g>
  </svg>
</template>

<style scoped>
.mark.tdc {
  stroke: var(--brass);
  stroke-width: 6;
}
</style>
