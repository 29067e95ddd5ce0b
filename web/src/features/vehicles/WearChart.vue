<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { counter, mine, shown } from '@/shared/mine'

/** Each valve over its vehicle's counter, from what it was left at to what it was found at: where in its limits it stands, 0 the lower and 1 the upper. */
const props = defineProps<{
  visits: Schemas['VisitView'][]
  wear: Schemas['ValveWear'][]
  counts: Schemas['Vehicle']['counts']
}>()

const run = computed(() => mine(counter(props.counts)))
const gap = mine('length')
const box = { left: 64, top: 14, width: 700, height: 200 }
const meters = computed(() => props.visits.map((v) => shown(v) ?? 0))
const from = computed(() => Math.min(...meters.value))
const to = computed(() => Math.max(...meters.value))
const x = (meter: number) => box.left + ((meter - from.value) / Math.max(1, to.value - from.value)) * box.width
const y = (share: number) => box.top + (1 - Math.min(1.4, Math.max(-0.4, share)) / 1.8 - 0.4 / 1.8) * box.height
type At = Schemas['VisitValve']
const share = (v: At, gap: number) => (gap - v.lower_mm) / Math.max(1e-6, v.upper_mm - v.lower_mm)

const lines = computed(() =>
  props.wear.map((w) => {
    const points: string[] = []
    for (const visit of props.visits) {
      const v = visit.valves.find((p) => p.valve === w.valve)
      const at = x(shown(visit) ?? 0).toFixed(1)
      // where it was not found as a figure, nobody knows how it came there: the line begins anew
      if (v && v.found_mm !== null)
        points.push(`${points.length ? 'L' : 'M'}${at} ${y(share(v, v.found_mm)).toFixed(1)}`)
      if (v && v.left_mm !== null)
        points.push(`${v.found_mm !== null ? 'L' : 'M'}${at} ${y(share(v, v.left_mm)).toFixed(1)}`)
    }
    return {
      valve: w.valve,
      odd: w.odd,
      first: w === props.wear[0] && w.leaves_at !== null,
      d: points.join(''),
    }
  }),
)
const end = computed(() => lines.value.find((l) => l.first || l.odd))
const lastAt = computed(() => {
  const v = props.visits.at(-1)?.valves.find((p) => p.valve === end.value?.valve)
  return v && v.left_mm !== null ? y(share(v, v.left_mm)) : null
})
const label = computed(
  () =>
    `Gaps within their limits from ${run.value.say(from.value)} to ${run.value.say(to.value)}${end.value ? `; ${end.value.valve} decides` : ''}`,
)
const limits = computed(() => {
  const v = props.visits.at(-1)?.valves.find((p) => p.valve === end.value?.valve)
  return v ? { lower: gap.bare(v.lower_mm), upper: gap.bare(v.upper_mm) } : { lower: 'lower', upper: 'upper' }
})
</script>

<template>
  <svg
    class="chart d-block w-100"
    :viewBox="`0 0 ${box.left + box.width + 56} ${box.top + box.height + 34}`"
    role="img"
    :aria-label="label"
  >
    <rect class="window f-wash" :x="box.left" :y="y(1)" :width="box.width" :height="y(0) - y(1)" />
    <text class="end fs-15 f-quiet anchor-end" :x="box.left - 8" :y="y(1) + 5">{{ limits.upper }}</text>
    <text class="end fs-15 f-quiet anchor-end" :x="box.left - 8" :y="y(0) + 5">{{ limits.lower }}</text>
    <path
      v-for="l in lines"
      :key="l.valve"
      class="line f-none s-edge sw-2"
      :class="{ first: l.first, odd: l.odd }"
      :d="l.d"
    />
    <text
      v-if="end && lastAt !== null"
      class="name font-weight-bold f-ink fs-18"
      :x="box.left + box.width + 8"
      :y="lastAt + 6"
    >
      {{ end.valve }}
    </text>
    <g v-for="k in meters" :key="k">
      <line class="tick s-line sw-1" :x1="x(k)" :x2="x(k)" :y1="box.top" :y2="box.top + box.height" />
      <text class="fs-15 f-quiet anchor-middle" :x="x(k)" :y="box.top + box.height + 24">{{ run.bare(k) }}</text>
    </g>
  </svg>
</template>

<style scoped>
.chart {
  max-width: 900px;
  font-family: var(--words);
}

.first {
  stroke: var(--brass);
  stroke-width: 4;
}

.odd {
  stroke: var(--tight);
  stroke-width: 4;
  stroke-dasharray: 8 4;
}

.tick {
  stroke-dasharray: 2 6;
}
</style>
