<script setup lang="ts">
import { computed } from 'vue'
import type { ValveShown } from './HeadDrawing.vue'
import type { Placed } from './headLayout'
import { reachedByTab } from '@/shared/reached'
import { octagon, verdictPaths } from './shapes'

const props = defineProps<{
  placed: Placed
  lift: number
  shown: ValveShown
  shrink: number
  pickable?: boolean
  bare?: boolean
  /** Rows run up the page: the arm lies to the left, and the figure stands to the right. */
  beside?: boolean
}>()
const emit = defineEmits<{ pick: [] }>()

function byEnter(e: KeyboardEvent) {
  if (!reachedByTab(e.currentTarget)) return
  e.preventDefault()
  e.stopPropagation()
  emit('pick')
}

const r = 29
const open = computed(() => props.lift > 0.004)
const raised = computed(() => props.shown.here && props.shown.settable && !open.value)
// An open valve sinks away from the eye and from its shaft; one that may be set here stands proud of the head.
const token = computed(
  () =>
    `translate(0 ${(props.lift * 9 - (raised.value ? 3 : 0)).toFixed(2)}) scale(${(1 - props.lift * props.shrink).toFixed(3)})`,
)
const notch = computed(() => (props.placed.port >= 0 ? 'M-9 0L0-9L9 0Z' : 'M-9 0L0 9L9 0Z'))
const notchAt = computed(() => `${props.beside ? 'rotate(-90) ' : ''}translate(0 ${props.placed.port * (r - 1)})`)
/** A gap between two figures stands in two lines, so that it keeps off its neighbours. */
const ends = computed(() => (props.shown.figure.includes('–') ? props.shown.figure.split('–') : null))
const label = computed(() => {
  const { shown, placed } = props
  const parts = [
    ...(shown.number ? [`valve ${shown.number}`] : []),
    shown.figure ? `${placed.name} ${shown.figure} ${shown.inThou ? 'thou' : 'mm'}` : placed.name,
    placed.kind,
  ]
  if (shown.was) parts.push(`set, was ${shown.was}`)
  if (shown.verdict) parts.push(shown.void || shown.verdict)
  if (shown.waits) parts.push('not on the disk yet')
  if (open.value) parts.push('open')
  else if (!shown.untold) parts.push(shown.settable ? 'may be set here' : 'not now')
  return parts.join(', ')
})
</script>

<template>
  <g
    class="valve"
    :class="[shown.verdict, { open, raised, chosen: shown.chosen, pickable, idle: !shown.settable }]"
    :transform="`translate(${placed.x} ${placed.y})`"
    :role="pickable ? undefined : 'img'"
    :aria-label="pickable ? undefined : label"
    :data-valve="placed.name"
  >
    <rect
      class="arm f-edge"
      x="-6"
      y="-54"
      width="12"
      :height="30 + lift * 8"
      rx="3"
      :transform="beside ? 'rotate(-90)' : undefined"
    />
    <circle
      class="pivot f-panel s-quiet sw-3"
      :cx="beside ? -58 : 0"
      :cy="beside ? 0 : -58"
      :r="shown.number ? 14 : 9"
    />
    <text
      v-if="shown.number"
      class="number font-weight-bold f-ink fs-18 anchor-middle"
      :x="beside ? -58 : 0"
      :y="beside ? 6 : -52"
      >{{ shown.number }}</text
    >
    <g v-if="raised" class="f-shade" transform="translate(5 6)">
      <circle v-if="placed.kind === 'intake'" :r="r" />
      <path v-else :d="octagon(r)" />
    </g>
    <g :transform="token">
      <circle v-if="placed.kind === 'intake'" class="form f-ground sw-3" :r="r" />
      <path v-else class="form f-ground sw-3" :d="octagon(r)" />
      <path v-if="placed.port" class="notch" :d="notch" :transform="notchAt" />
      <text class="name" :class="{ long: placed.name.length > 2 }" y="7">{{ placed.name }}</text>
    </g>
    <g v-if="shown.waits" class="waits f-undecided" transform="translate(34 -32)">
      <circle v-for="x in [-9, 0, 9]" :key="x" :cx="x" r="3.4" />
    </g>
    <g v-if="!bare" class="result" :transform="beside ? 'translate(66 -62)' : undefined">
      <text v-if="shown.was" class="in-figures fs-14 f-quiet anchor-middle" y="106">was {{ shown.was }}</text>
      <text
        v-if="shown.figure"
        class="gap in-figures fs-22 font-weight-bold anchor-middle"
        :class="{ five: shown.figure.length === 5, wide: shown.figure.length > 5 && !ends, ends }"
        :y="ends ? 51 : 61"
      >
        <template v-if="ends"
          ><tspan x="0">{{ ends[0] }}–</tspan><tspan x="0" dy="16">{{ ends[1] }}</tspan></template
        ><template v-else>{{ shown.figure }}</template>
      </text>
      <line v-else class="none s-edge sw-3" x1="-12" x2="12" y1="55" y2="55" />
      <text v-if="shown.void" class="fs-16 f-undecided anchor-middle" y="86">{{ shown.void }}</text>
      <g v-else-if="shown.verdict" transform="translate(0 82) scale(.82)">
        <path class="fill" :d="verdictPaths[shown.verdict].fill" />
        <path class="stroke f-none sw-4" :d="verdictPaths[shown.verdict].line" />
      </g>
    </g>
    <rect
      v-if="pickable"
      class="hit cursor-pointer"
      x="-36"
      y="-36"
      :width="beside && !bare ? 138 : 72"
      :height="bare || beside ? 72 : 132"
      role="button"
      tabindex="0"
      :aria-label="label"
      @click="$emit('pick')"
      @keydown.space.stop.prevent="$emit('pick')"
      @keydown.enter="byEnter"
    />
  </g>
</template>

<style scoped>
.form,
.stroke {
  stroke: var(--tone, var(--plain, var(--ink)));
}

.notch,
.gap,
.fill {
  fill: var(--tone, var(--plain, var(--ink)));
}

.name {
  fill: var(--ink);
  font-size: 21px;
  font-weight: 700;
  text-anchor: middle;
}

.name.long {
  font-size: 18px;
}

.idle:not(.in, .tight, .loose, .undecided) {
  --plain: var(--edge);
}

.idle .form {
  fill: var(--sunk);
  stroke-dasharray: 5 4;
}

.idle .name {
  fill: var(--quiet);
}

.raised .form {
  fill: var(--panel);
  stroke-width: 4;
}

.raised .arm,
.chosen .arm {
  fill: var(--brass);
}

.chosen .form {
  stroke: var(--brass);
  stroke-width: 6;
}

.chosen .notch {
  fill: var(--brass);
}

.gap.five {
  font-size: 18px;
}

.gap.wide {
  font-size: 14px;
}

.gap.ends {
  font-size: 17px;
}

.hit {
  fill: transparent;
}

.hit:focus-visible {
  outline: none;
}

.valve:has(.hit:focus-visible) .form {
  stroke: var(--brass);
  stroke-width: 7;
}
</style>
