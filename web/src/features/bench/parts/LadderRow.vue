<script setup lang="ts">
import type { Rung } from '@/shared/api/client'
import { mm, thou } from '@/shared/units'

/** One leaf of the ladder, or the stack in hand: its name, what it is beside, and how it may feel. */
const props = defineProps<{ rung?: Rung; name: string; note?: string; cursor?: boolean }>()
defineEmits<{ point: [] }>()

/** What stands under a leaf: whose it is, what it is for, what it measures, or its thickness in the other unit. */
function beside(r: Rung) {
  if (r.other) return `${r.other} leaf`
  if (r.nominal) return 'set by this'
  if (r.leaves_mm.length === 1 && r.thickness_mm !== r.leaves_mm[0]) return `is ${mm(r.thickness_mm)}`
  return props.name.startsWith('.') ? mm(r.thickness_mm) : thou(r.thickness_mm)
}
</script>

<template>
  <div
    class="rung d-grid ga-2 align-center ps-1 pe-2 pt-1 pb-1 rounded"
    :class="{ window: rung?.in_window, cursor, other: rung?.other }"
  >
    <div class="leaf text-right lh-none" @click="$emit('point')">
      <span class="figure thick d-block font-weight-bold fs-28" :class="{ stack: rung && rung.leaves_mm.length > 1 }">{{
        name
      }}</span>
      <small class="quiet fs-14" :class="{ wrong: rung?.other }">{{ rung ? beside(rung) : note }}</small>
    </div>
    <span class="bar align-self-stretch" aria-hidden="true" />
    <slot />
  </div>
</template>

<style scoped>
.rung {
  grid-template-columns: var(--columns);
  border: 2px solid transparent;
}

.rung.cursor {
  border-color: var(--brass);
  background: var(--wash);
}

.thick.stack {
  font-size: 17px;
}

.bar {
  background: var(--line);
}

.window .bar {
  background: var(--in);
}

.other .bar {
  background: repeating-linear-gradient(var(--undecided) 0 6px, transparent 6px 12px);
}

small.wrong {
  color: var(--undecided);
  font-weight: 700;
}

@media (width <= 480px), (height <= 820px) {
  .rung {
    padding-block: 0;
  }
}

@media (width <= 1150px) {
  .rung {
    gap: 6px;
  }

  .thick.stack {
    font-size: 20px;
  }
}
</style>
