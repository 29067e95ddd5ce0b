<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'

/** What is turned, as it looks from where the driver sits: a slotted screw, a nut, a pivot, an eccentric with its rod. */
defineProps<{ setter?: Schemas['GearPicture']['setter'] | '' }>()
const inner = Array.from({ length: 6 }, (_, i) => {
  const a = ((i * 60 - 90) * Math.PI) / 180
  return `${(Math.cos(a) * 40).toFixed(2)} ${(Math.sin(a) * 40).toFixed(2)}`
}).join('L')
</script>

<template>
  <g v-if="setter === 'eccentric'">
    <circle class="screw f-panel s-ink sw-4" r="46" />
    <circle class="pin f-sunk s-ink sw-3" cx="14" cy="10" r="15" />
    <circle class="hole f-sunk s-ink sw-3" cx="-22" cy="-14" r="7" />
    <path class="rod s-brass cap-round" d="M-22-14L-74-62" />
  </g>
  <path v-else-if="setter === 'pivot' || setter === 'tappet-nuts'" class="screw f-panel s-ink sw-4" :d="`M${inner}Z`" />
  <circle v-else class="screw f-panel s-ink sw-4" :r="setter === 'stud-nut' ? 22 : 36" />
</template>

<style scoped>
.rod {
  stroke-width: 8;
}
</style>
