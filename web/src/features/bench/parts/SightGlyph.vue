<script setup lang="ts">
import { computed } from 'vue'

/** A small drawing of something that may be seen: the lobe over its valve, two of them, a pulley, a sprocket. */
const props = defineProps<{ what: string }>()

/** For each lobe: where it points, in degrees from straight down, and how far below the base circle its follower is: less than nothing is play. */
const lobes: Record<string, { turn: number; down: number; play?: boolean }[]> = {
  rocking: [
    { turn: 58, down: 2 },
    { turn: -58, down: 2 },
  ],
  tdc_firing: [
    { turn: 150, down: 0, play: true },
    { turn: -150, down: 0, play: true },
  ],
  full_lift: [{ turn: 0, down: 11 }],
  pressed: [{ turn: 34, down: 6 }],
  loose: [{ turn: 120, down: 0, play: true }],
  lobe_away: [{ turn: 180, down: 0, play: true }],
}
const shown = computed(() => lobes[props.what] ?? [])
const x = (i: number) => (shown.value.length === 1 ? 32 : 18 + 28 * i)
</script>

<template>
  <svg class="glyph flex-0-0" viewBox="0 0 64 72" aria-hidden="true">
    <template v-if="shown.length">
      <g v-for="(l, i) in shown" :key="i" :transform="`translate(${x(i)} 22)`">
        <path
          class="cam f-panel s-ink sw-2"
          :transform="`rotate(${l.turn})`"
          d="M-7 3A7.6 7.6 0 1 1 7 3C6 9 4 19 0 19S-6 9 -7 3Z"
        />
        <line class="s-quiet sw-2" x1="-12" x2="12" y1="36" y2="36" />
        <g :transform="`translate(0 ${9 + l.down})`">
          <rect class="bucket f-edge" x="-9" :y="l.play ? 4 : 0" width="18" :height="l.play ? 4 : 8" />
          <line class="stem f-none s-ink sw-3" y1="8" y2="26" />
          <line class="stem f-none s-ink sw-3" x1="-9" x2="9" y1="27" y2="27" />
        </g>
      </g>
      <g v-if="what === 'rocking'" class="arrows">
        <path class="f-none sw-3 s-brass" d="M3 48V34M0 39l3-5 3 5" />
        <path class="f-none sw-3 s-brass" d="M61 34v14M58 43l3 5 3-5" />
      </g>
    </template>
    <template v-else>
      <circle class="wheel f-panel s-ink sw-2" :class="{ teeth: what === 'sign' }" cx="32" cy="42" r="23" />
      <circle class="f-panel s-ink sw-2" cx="32" cy="42" r="5" />
      <line class="mark s-brass sw-5" x1="32" y1="20" x2="32" y2="32" />
      <path v-if="what === 'mark'" class="pointer f-ink" d="M26 4h12l-6 11Z" />
      <line v-else class="s-quiet sw-2" x1="4" x2="60" y1="18" y2="18" />
    </template>
  </svg>
</template>

<style scoped>
.glyph {
  width: 54px;
  height: 60px;
}

.wheel.teeth {
  stroke-width: 6;
  stroke-dasharray: 4 3;
}
</style>
