<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { counter, mine, shown } from '@/shared/mine'
import { foreseen, horizon, tooth, type Tooth } from './wearChart'

/** Each valve by itself over its vehicle's counter: a saw-tooth of what was found and left, its limits, and a fan of where it may go. */
const props = defineProps<{
  visits: Schemas['VisitView'][]
  wear: Schemas['ValveWear'][]
  counts: Schemas['Vehicle']['counts']
}>()

const few = 6
const all = ref(false)
const run = computed(() => mine(counter(props.counts)))
const gap = mine('length')
const box = { left: 46, right: 12, top: 8, width: 250, height: 92 }
/** Those whose counter was read: of the others nobody knows where they stand. */
const visits = computed(() =>
  props.visits.flatMap((v) => {
    const meter = shown(v)
    return meter ? [{ meter, valves: v.valves }] : []
  }),
)
const from = computed(() => Math.min(...visits.value.map((v) => v.meter)))
const now = computed(() => Math.max(...visits.value.map((v) => v.meter)))
const to = computed(() => horizon(visits.value, props.wear))
const x = (meter: number) => box.left + ((meter - from.value) / Math.max(1, to.value - from.value)) * box.width

const round = (n: number) => run.value.say(foreseen(n, props.counts))
/** What becomes of a valve, and by when, as it is written beside its chart. */
function says({ wear: w }: Tooth): string {
  if (w.out) return 'left outside its limits'
  const [early, late] = w.range ?? [null, null]
  if (w.leaves_at === null) return w.rate_mm_per_1000 === null ? 'no rate yet' : 'steady'
  const range =
    early != null
      ? ` (${run.value.bare(Math.floor(early))}–${late != null ? run.value.bare(Math.floor(late)) : '…'})`
      : ''
  return `${w.side} at about ${round(w.leaves_at)}${range}`
}

const charts = computed(() =>
  props.wear
    .flatMap((w) => tooth(visits.value, w, to.value) ?? [])
    .slice(0, all.value ? undefined : few)
    .map((t) => {
      const seen = [t.lower, t.upper, ...t.runs.flat().map(([, g]) => g)]
      const pad = Math.max(0.01, (Math.max(...seen) - Math.min(...seen)) * 0.15)
      const [least, most] = [Math.min(...seen) - pad, Math.max(...seen) + pad]
      const y = (g: number) => box.top + ((most - g) / (most - least)) * box.height
      const at = ([meter, g]: [number, number]) => `${x(meter).toFixed(1)} ${y(g).toFixed(1)}`
      const fan = t.fan && t.from
      return {
        t,
        y,
        says: says(t),
        line: t.runs.map((r) => `M${r.map(at).join('L')}`).join(''),
        fan: fan ? `M${at(t.from!)}L${at([to.value, t.fan![0]])}L${at([to.value, t.fan![2]])}Z` : '',
        likely: fan ? `M${at(t.from!)}L${at([to.value, t.fan![1]])}` : '',
      }
    }),
)
</script>

<template>
  <div class="charts d-grid ga-4">
    <figure v-for="c in charts" :key="c.t.wear.valve" class="ma-0">
      <figcaption class="fs-16">
        <b class="fs-20">{{ c.t.wear.valve }}</b> <span :class="c.t.wear.side || 'quiet'">{{ c.says }}</span>
      </figcaption>
      <svg
        class="d-block w-100"
        :viewBox="`0 0 ${box.left + box.width + box.right} ${box.top + box.height + 24}`"
        role="img"
        :aria-label="`${c.t.wear.valve} from ${run.say(from)} to ${run.say(to)}: ${c.says}`"
      >
        <clipPath :id="`wear-${c.t.wear.valve}`">
          <rect :x="box.left" :y="box.top" :width="box.width" :height="box.height" />
        </clipPath>
        <rect
          class="window"
          :x="box.left"
          :y="c.y(c.t.upper)"
          :width="box.width"
          :height="c.y(c.t.lower) - c.y(c.t.upper)"
        />
        <g :clip-path="`url(#wear-${c.t.wear.valve})`">
          <path class="fan" :d="c.fan" />
          <path class="likely f-none sw-2" :d="c.likely" />
          <path class="teeth f-none sw-3" :class="{ odd: c.t.wear.odd }" :d="c.line" />
        </g>
        <line
          v-for="l in [c.t.lower, c.t.upper]"
          :key="l"
          class="limit sw-2"
          :x1="box.left"
          :x2="box.left + box.width"
          :y1="c.y(l)"
          :y2="c.y(l)"
        />
        <text
          v-for="l in [c.t.lower, c.t.upper]"
          :key="`t${l}`"
          class="fs-15 f-quiet anchor-end"
          :x="box.left - 6"
          :y="c.y(l) + 5"
        >
          {{ gap.bare(l) }}
        </text>
        <line class="now s-line sw-1" :x1="x(now)" :x2="x(now)" :y1="box.top" :y2="box.top + box.height" />
        <text class="fs-15 f-quiet" :x="box.left" :y="box.top + box.height + 18">{{ run.bare(from) }}</text>
        <text class="fs-15 f-quiet anchor-middle" :x="x(now)" :y="box.top + box.height + 18">{{ run.bare(now) }}</text>
        <text class="fs-15 f-quiet anchor-end" :x="box.left + box.width" :y="box.top + box.height + 18">
          {{ run.bare(foreseen(to, counts)) }}
        </text>
      </svg>
    </figure>
  </div>
  <VBtn v-if="wear.length > few" class="justify-self-start" @click="all = !all">
    {{ all ? `The ${few} that decide` : `All ${wear.length} valves` }}
  </VBtn>
</template>

<style scoped>
.charts {
  grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
  font-family: var(--words);
}

.window {
  fill: var(--sunk);
}

.limit {
  stroke: var(--edge);
}

.teeth {
  stroke: var(--ink);
}

.teeth.odd {
  stroke: var(--tight);
}

.fan {
  fill: var(--wash);
  stroke: var(--brass);
}

.likely {
  stroke: var(--brass);
  stroke-dasharray: 6 4;
}

.now {
  stroke-dasharray: 2 5;
}

.tight {
  color: var(--tight);
}

.loose {
  color: var(--loose);
}
</style>
