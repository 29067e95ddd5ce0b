<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'

/** The cover from above, front on the left: each bolt where it sits, with when its turn comes in a round. */
const props = defineProps<{ bolts: Schemas['BoltView'][] }>()

const width = computed(() => Math.max(420, Math.ceil(props.bolts.length / 2) * 74 + 60))
const x = (b: Schemas['BoltView']) => 30 + b.along * (width.value - 60)
const y = (b: Schemas['BoltView']) => (b.row === 0 ? 42 : 128)
const said = computed(() =>
  props.bolts.some((b) => b.number)
    ? `The cover’s ${props.bolts.length} bolts with their order: ${[...props.bolts]
        .sort((a, b) => a.number - b.number)
        .map((b) => `${b.number} ${b.row ? 'near' : 'far'} row, ${Math.round(b.along * 100)} % along`)
        .join('; ')}`
    : `The cover’s ${props.bolts.length} bolts: by the maker’s numbers`,
)
</script>

<template>
  <div class="drawing overflow-x-auto" tabindex="0">
    <svg
      class="d-block w-100 in-figures"
      :viewBox="`0 0 ${width} 170`"
      role="img"
      :aria-label="said"
      :style="{ minWidth: `${width * 0.8}px` }"
    >
      <rect class="cover f-sunk s-edge sw-2" x="6" y="12" :width="width - 12" height="146" rx="22" />
      <rect class="inner f-none s-line sw-2" x="40" y="64" :width="width - 80" height="42" rx="10" />
      <g v-for="(b, i) in bolts" :key="i" :class="{ first: b.number === 1 }">
        <circle class="bolt f-panel s-edge sw-3" :cx="x(b)" :cy="y(b)" r="23" />
        <text class="f-ink fs-22 font-weight-bold anchor-middle" :x="x(b)" :y="y(b) + 8">{{ b.number || '' }}</text>
      </g>
    </svg>
    <small class="quiet">from above, front on the left</small>
  </div>
</template>

<style scoped>
svg {
  max-width: 720px;
}

.first .bolt {
  stroke: var(--brass);
  stroke-width: 5;
}
</style>
