<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { degrees } from '@/shared/units'

const props = defineProps<{ points: Schemas['Best'][]; required: number; at: number }>()
defineEmits<{ pick: [stops: number] }>()

const left = 64
/** As far apart as fingers need: what is around the plot scrolls where that is wider. */
const right = computed(() => Math.max(300, left + (props.points.length - 1) * 46))
const width = computed(() => right.value + 30)
const top = 16
const bottom = 120
const most = computed(() => Math.max(props.required, ...props.points.map((p) => p.smallest_margin_deg)) * 1.06)
const y = (m: number) => bottom - (m / most.value) * (bottom - top)
const step = computed(() => (right.value - left) / Math.max(1, props.points.length - 1))
const placed = computed(() =>
  props.points.map((p, i) => ({
    ...p,
    x: left + (props.points.length > 1 ? i * step.value : 60),
    y: y(p.smallest_margin_deg),
  })),
)
const line = computed(() => placed.value.map((p, i) => `${i ? 'L' : 'M'}${p.x} ${p.y}`).join(''))
</script>

<template>
  <div class="scrolls overflow-x-auto" tabindex="0" role="region" aria-label="Best plans">
    <svg
      class="plot d-block w-100 in-figures"
      :style="{ minWidth: `${width}px` }"
      :viewBox="`0 0 ${width} 168`"
      role="group"
      aria-label="Best plans: number of stops against smallest margin"
    >
      <line class="s-line sw-2" :x1="left - 12" :x2="right + 12" :y1="bottom + 8" :y2="bottom + 8" />
      <line class="need s-undecided sw-2" :x1="left - 12" :x2="right + 12" :y1="y(required)" :y2="y(required)" />
      <text class="quiet fs-14 f-quiet anchor-end" :x="left - 16" :y="y(required) + 4">
        {{ degrees(required) }}
      </text>
      <text class="quiet most fs-14 f-quiet anchor-end" :x="left - 16" :y="top + 8">
        {{ degrees(points.at(-1)?.smallest_margin_deg ?? 0) }}
      </text>
      <path class="line f-none s-edge sw-3" :d="line" />
      <g
        v-for="p in placed"
        :key="p.stops"
        class="point cursor-pointer"
        :class="{ on: p.stops === at, short: p.smallest_margin_deg < required }"
        role="button"
        tabindex="0"
        :aria-label="`${p.stops} stops, clear by ${degrees(p.smallest_margin_deg)}`"
        @click="$emit('pick', p.stops)"
        @keydown.enter.stop.prevent="$emit('pick', p.stops)"
        @keydown.space.stop.prevent="$emit('pick', p.stops)"
      >
        <rect :x="p.x - 22.5" :y="top - 10" width="45" :height="bottom + 34" class="hit" />
        <circle class="f-ground s-in sw-3" :cx="p.x" :cy="p.y" :r="p.stops === at ? 9 : 6" />
        <text class="f-ink fs-14 anchor-middle" :x="p.x" :y="bottom + 28">{{ p.stops }}</text>
      </g>
      <text class="quiet fs-14 anchor-middle f-quiet" :x="(left + right) / 2" y="164">stops</text>
    </svg>
  </div>
</template>

<style scoped>
.plot {
  height: 190px;
}

.need {
  stroke-dasharray: 5 5;
}

.point.short circle {
  stroke: var(--tight);
  stroke-dasharray: 3 3;
}

.point.on circle {
  fill: var(--brass);
  stroke: var(--brass);
}

.point.on text {
  fill: var(--brass);
  font-weight: 700;
}

.hit {
  fill: transparent;
}

.point:focus-visible {
  outline: none;
}

.point:focus-visible circle {
  stroke: var(--brass);
  stroke-width: 5;
}
</style>
