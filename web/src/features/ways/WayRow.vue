<script setup lang="ts">
import type { PlanView } from '@/shared/api/client'
import { degrees } from '@/shared/units'
import { orderName } from '@/shared/words'

defineProps<{ plan: PlanView; required: number; most: number }>()

const pegs = (p: PlanView) => p.stops.map((s) => s.crank_deg / 7.2)
</script>

<template>
  <span class="way d-grid flex-1-1-0 gr-1 gc-3 align-center text-left">
    <span class="name"
      ><b>{{ plan.title }}</b> <small class="quiet">{{ orderName(plan.order) }}</small></span
    >
    <span class="stops"
      ><b class="figure">{{ plan.stops.length }}</b> <small class="quiet">stops</small></span
    >
    <span class="turned figure fs-20 text-right">{{ degrees(plan.total_turn_deg!) }}</span>
    <span class="clear">
      <svg viewBox="0 0 100 12" preserveAspectRatio="none" aria-hidden="true">
        <rect class="room" width="100" height="12" />
        <rect class="have" :width="(plan.smallest_margin_deg! / most) * 100" height="12" />
        <line class="need" :x1="(required / most) * 100" :x2="(required / most) * 100" y1="0" y2="12" />
      </svg>
      <small>clear by {{ degrees(plan.smallest_margin_deg!) }}</small>
    </span>
    <svg class="pegs" viewBox="-2 0 104 10" preserveAspectRatio="none" aria-hidden="true">
      <line x1="0" x2="100" y1="9" y2="9" />
      <line v-for="(x, i) in pegs(plan)" :key="i" class="peg" :x1="x" :x2="x" y1="1" y2="9" />
    </svg>
    <small class="marks quiet">{{
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

.name b {
  display: block;
  font-size: 21px;
  line-height: 1.15;
}

small {
  font-size: 15px;
  line-height: 1.2;
}

.stops b {
  font-size: 30px;
  line-height: 1;
}

.clear svg {
  display: block;
  width: 100%;
  height: 12px;
}

.room {
  fill: var(--sunk);
}

.have {
  fill: var(--in);
}

.need {
  stroke: var(--ink);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}

.pegs {
  grid-column: 1 / 2;
  width: 100%;
  height: 14px;
}

.pegs line {
  stroke: var(--edge);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}

.pegs .peg {
  stroke: var(--ink);
  stroke-width: 3;
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
