<script setup lang="ts">
import { computed } from 'vue'
import { leaves, mm, thou } from '@/shared/units'

const props = defineProps<{
  lower: number
  upper: number
  stacks: { leaves_mm: number[]; thickness_mm: number; uncertainty_mm: number }[]
  holes: { from_mm: number; to_mm: number }[]
}>()

const left = 26
const across = 748
const x = (v: number) => left + ((v - props.lower) / Math.max(1e-9, props.upper - props.lower)) * across
const widest = computed(() => [...props.holes].sort((a, b) => b.to_mm - b.from_mm - (a.to_mm - a.from_mm))[0])
const count = (n: number) => props.stacks.filter((s) => s.leaves_mm.length === n).length
</script>

<template>
  <div>
    <svg
      class="reach d-block w-100 in-figures"
      viewBox="0 0 800 112"
      role="img"
      :aria-label="`${stacks.length} sizes you can make, ${holes.length} missing sizes`"
    >
      <rect class="f-sunk" :x="left" y="20" :width="across" height="54" />
      <rect
        v-for="h in holes"
        :key="h.from_mm"
        class="hole f-none s-undecided sw-2"
        :x="x(h.from_mm)"
        y="20"
        :width="Math.max(2, x(h.to_mm) - x(h.from_mm))"
        height="54"
      />
      <line
        v-for="s in stacks"
        :key="s.thickness_mm"
        class="s-quiet sw-2"
        :class="`of${s.leaves_mm.length}`"
        :x1="x(s.thickness_mm)"
        :x2="x(s.thickness_mm)"
        y1="20"
        :y2="s.leaves_mm.length === 1 ? 74 : s.leaves_mm.length === 2 ? 56 : 40"
      />
      <text :x="left" y="100" class="end fs-15 anchor-middle f-quiet">{{ mm(lower) }}</text>
      <text :x="left + across" y="100" class="end last fs-15 anchor-middle f-quiet">{{ mm(upper) }}</text>
      <text
        v-for="s in stacks.filter((s) => s.leaves_mm.length === 1)"
        :key="`t${s.thickness_mm}`"
        class="f-ink fs-15 anchor-middle"
        :x="x(s.thickness_mm)"
        y="14"
      >
        {{ mm(s.thickness_mm) }}
      </text>
    </svg>
    <p class="say fs-16">
      <b>{{ stacks.length }}</b> sizes: {{ count(1) }} by one leaf, {{ count(2) }} by two, {{ count(3) }} by three.
      <template v-if="widest"
        >{{ holes.length }} {{ holes.length === 1 ? 'missing size' : 'missing sizes' }}, the widest from
        {{ mm(widest.from_mm) }} to {{ mm(widest.to_mm) }} mm ({{ thou(widest.from_mm) }} to
        {{ thou(widest.to_mm) }}).</template
      ><template v-else>No size missing that a drag cannot bridge.</template>
    </p>
    <ul
      class="list d-grid gr-1 gc-4 mx-0 mt-2 mb-0 pa-0 overflow-y-auto fs-16 list-none"
      tabindex="0"
      aria-label="Thicknesses"
    >
      <li v-for="s in stacks" :key="s.thickness_mm" class="figure">
        <b>{{ mm(s.thickness_mm) }}</b>
        <span v-if="s.leaves_mm.length > 1" class="quiet ms-2">{{ leaves(s.leaves_mm) }}</span>
        <small class="quiet ms-1 fs-14">±{{ mm(s.uncertainty_mm) }}</small>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.hole {
  stroke-dasharray: 5 5;
}

.of1 {
  stroke: var(--in);
  stroke-width: 5;
}

.end {
  text-anchor: start;
}

.last {
  text-anchor: end;
}

.list {
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  max-height: 190px;
}
</style>
