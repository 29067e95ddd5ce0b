<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'

/** How the valves of a bank stand, front to the left: a round token an intake, a cut square an exhaust; the left row lies below, as on the drawing. */
const props = defineProps<{ bank: Schemas['Bank']; says: string }>()
const step = 19
const most = computed(() => Math.max(...props.bank.rows.map((r) => r.valves.length)))
const rows = computed(() =>
  [...props.bank.rows]
    .sort((a, b) => Number(a.side === 'left') - Number(b.side === 'left'))
    .map((r, i) => ({
      y: (i + 0.5) * step,
      valves: [...r.valves].map((kind, k) => ({ kind, x: ((k + 0.5) * most.value * step) / r.valves.length })),
    })),
)
/** A square with cut corners about a place. */
const cut = (x: number, y: number) => `M${x - 7.5} ${y - 4}l3.5 -3.5h8l3.5 3.5v8l-3.5 3.5h-8l-3.5 -3.5z`
</script>

<template>
  <svg
    class="rows d-block"
    :viewBox="`0 0 ${most * step} ${rows.length * step}`"
    :width="most * step"
    :height="rows.length * step"
    role="img"
    :aria-label="says"
  >
    <template v-for="r in rows" :key="r.y">
      <template v-for="v in r.valves" :key="v.x">
        <circle v-if="v.kind === 'I'" :cx="v.x" :cy="r.y" r="7" fill="none" stroke="currentColor" stroke-width="2" />
        <path v-else :d="cut(v.x, r.y)" fill="currentColor" />
      </template>
    </template>
  </svg>
</template>

<style scoped>
.rows {
  max-width: 100%;
  height: auto;
}
</style>
