<script setup lang="ts">
import type { PlanView } from '@/shared/api/client'
import { degrees } from '@/shared/units'
import { orderName } from '@/shared/words'

defineProps<{ plan: PlanView; required: number; most: number }>()

const pegs = (p: PlanView) => p.stops.map((s) => s.crank_deg / 7.2)
</script>

<template>
  <span class="way d-grid fills gr-1 gc-3 align-center text-left">
    <span class="name"
      ><b class="d-block fs-20 lh-tight">{{ plan.title }}</b>
      <small class="quiet fs-15 lh-tight">{{ orderName(plan) }}</small></span
    >
    <span class="stops"
      ><b class="figure fs-30 lh-none">{{ plan.stops.length }}</b>
      <small class="quiet fs-15 lh-tight">stops</small></span
    >
    <span class="turned figure fs-20 text-right">{{ degrees(plan.total_turn_deg!) }}</span>
    <span class="clear">
      <svg class="d-block w-100" viewBox="0 0 100 12" preserveAspectRatio="none" aria-hidden="true">
        <rect class="room f-sunk" width="100" height="12" />
        <rect class="have f-in" :width="(plan.smallest_margin_deg! / most) * 100" height="12" />
        <line class="need s-ink sw-2" :x1="(required / most) * 100" :x2="(required / most) * 100" y1="0" y2="12" />
      </svg>
      <small class="fs-15 lh-tight">{{ degrees(plan.smallest_margin_deg!) }} from the lobes</small>
    </span>
    <svg class="pegs w-100" viewBox="-2 0 104 10" preserveAspectRatio="none" aria-hidden="true">
      <line class="s-edge sw-2" x1="0" x2="100" y1="9" y2="9" />
      <line v-for="(x, i) in pegs(plan)" :key="i" class="peg s-ink sw-3" :x1="x" :x2="x" y1="1" y2="9" />
    </svg>
    <small class="marks quiet fs-15 lh-tight">{{
      plan.unmarked_deg.length
        ? `no mark for ${plan.unmarked_deg.slice(0, 4).map(degrees).join(', ')}${plan.unmarked_deg.length > 4 ? ' …' : ''}`
        : `marks ${plan.marks_deg.map(degrees).join(', ')}`
    }}</small>
  </span>
</template>

<style scoped>
.way {
  grid-template-columns: minmax(0, 2fr) 82px 74px minmax(90px, 1fr);
}

.clear svg {
  height: 12px;
}

.need {
  vector-effect: non-scaling-stroke;
}

.pegs {
  grid-column: 1 / 2;
  height: 14px;
}

.pegs line {
  vector-effect: non-scaling-stroke;
}

.on .pegs .peg {
  stroke: var(--brass);
}

.marks {
  grid-column: 2 / -1;
}

@media (width <= 560px) {
  .way {
    grid-template-columns: minmax(0, 1fr) auto;
  }

  .pegs,
  .marks,
  .clear {
    grid-column: 1 / -1;
  }
}
</style>
