<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { degrees } from '@/shared/units'
import SetterGlyph from './SetterGlyph.vue'

const props = defineProps<{
  screw?: Schemas['Screw'] | null
  nut: boolean
  locked?: boolean
  setter?: Schemas['GearPicture']['setter']
}>()

// Which way it is turned comes with the answer: it depends on the gear and on its thread.
const turn = computed(() => props.screw?.turn_deg ?? 0)
const shown = computed(() => Math.min(turn.value, 350) * (props.screw?.rotation === 'anticlockwise' ? -1 : 1))
const whole = computed(() => Math.floor(turn.value / 360))
const point = (deg: number, r: number) => {
  const a = ((deg - 90) * Math.PI) / 180
  return `${(Math.cos(a) * r).toFixed(2)} ${(Math.sin(a) * r).toFixed(2)}`
}
const sweep = computed(
  () =>
    `M${point(0, 74)}A74 74 0 ${Math.abs(shown.value) > 180 ? 1 : 0} ${shown.value < 0 ? 0 : 1} ${point(shown.value, 74)}`,
)
const hexagon = Array.from({ length: 6 }, (_, i) => point(i * 60 + 30, 58)).join('L')
const name = computed(() =>
  props.screw?.turn_deg != null
    ? `Turn the screw ${props.screw.travel} ${degrees(turn.value)}, ${props.screw.rotation}`
    : 'Turn the adjuster by feel',
)
</script>

<template>
  <svg class="dial d-block w-100 h-100" viewBox="-100 -100 200 200" role="img" :aria-label="name">
    <g class="hours">
      <line
        v-for="h in 12"
        :key="h"
        class="s-edge sw-3"
        y1="-96"
        :y2="h % 3 === 0 ? -84 : -90"
        :transform="`rotate(${h * 30})`"
      />
    </g>
    <path v-if="nut" class="nut f-none s-quiet sw-4" :class="{ locked }" :d="`M${hexagon}Z`" />
    <SetterGlyph :setter="setter" />
    <g v-if="screw?.turn_deg != null">
      <line class="slot was s-edge" y1="-30" y2="30" />
      <line class="slot s-ink" y1="-30" y2="30" :transform="`rotate(${shown})`" />
      <path v-if="Math.abs(shown) > 1" class="f-none s-brass sw-6" :d="sweep" />
      <path
        class="head f-brass"
        d="M-9-8L9 0L-9 8Z"
        :transform="`translate(${point(shown, 74)}) rotate(${shown < 0 ? shown + 180 : shown})`"
      />
      <text v-if="whole" class="whole font-weight-bold f-brass fs-18 anchor-middle" y="98">
        + {{ whole }} turn{{ whole > 1 ? 's' : '' }}
      </text>
    </g>
    <line
      v-else-if="!setter || setter === 'valve-screw' || setter === 'rod-screw'"
      class="slot s-ink"
      y1="-30"
      y2="30"
    />
  </svg>
</template>

<style scoped>
.nut {
  stroke-dasharray: 6 6;
}

.nut.locked {
  stroke: var(--brass);
  stroke-dasharray: none;
  stroke-width: 7;
}

.slot {
  stroke-width: 9;
}

.slot.was {
  stroke-width: 5;
  stroke-dasharray: 5 5;
}
</style>
