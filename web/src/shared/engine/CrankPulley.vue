<script setup lang="ts">
import { computed } from 'vue'

const props = defineProps<{
  crank: number | null
  rotation: 'clockwise' | 'anticlockwise'
  marks: number[]
  /** Shows the arrow of the running direction. */
  turning: boolean
}>()

const sense = computed(() => (props.rotation === 'clockwise' ? 1 : -1))
// A mark that stands after TDC comes to the pointer later: it lies behind TDC against the running direction.
const at = (mark: number) => `rotate(${sense.value * ((props.crank ?? 0) - mark)})`
</script>

<template>
  <svg
    class="pulley d-block w-100 h-100"
    viewBox="-62 -66 124 128"
    role="img"
    :aria-label="crank === null ? 'Crank pulley, place not known' : `Crank pulley at ${Math.round(crank)} degrees`"
  >
    <path class="pointer" d="M-7-64H7L0-52Z" />
    <circle class="rim" r="48" />
    <circle class="hub" r="16" />
    <g v-if="crank !== null">
      <line
        v-for="m in marks"
        :key="m"
        class="mark"
        :class="{ tdc: m === 0 }"
        y1="-48"
        :y2="m === 0 ? -30 : -38"
        :transform="at(m)"
      />
    </g>
    <text v-else y="9">?</text>
    <g v-if="turning" class="arrow" :transform="`scale(${sense} 1)`">
      <path class="sweep" d="M-24 22A33 33 0 0 0 24 22" transform="rotate(180)" />
      <path d="M18-32L33-24L21-12Z" transform="translate(2 2)" />
    </g>
  </svg>
</template>

<style scoped>
.rim {
  fill: var(--panel);
  stroke: var(--quiet);
  stroke-width: 3.5;
}

.hub {
  fill: var(--ground);
  stroke: var(--quiet);
  stroke-width: 3;
}

.pointer {
  fill: var(--ink);
}

.mark {
  stroke: var(--quiet);
  stroke-width: 3;
}

.mark.tdc {
  stroke: var(--brass);
  stroke-width: 6;
}

.arrow path {
  fill: var(--brass);
}

.arrow .sweep {
  fill: none;
  stroke: var(--brass);
  stroke-width: 4;
}

text {
  fill: var(--quiet);
  font-size: 26px;
  font-weight: 700;
  text-anchor: middle;
}
</style>
