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
// A frame with dozens of these is as dear as what changes in it: each stands where it is drawn, one group of an open one is moved, and the
// arm is a line, whose end is no matter of style.
const x = computed(() => props.placed.x)
const y = computed(() => props.placed.y)
// An open valve sinks away from the eye and from its shaft; one that may be set here stands proud of the head.
const moved = computed(() => {
  const [down, size] = [props.lift * 9 - (raised.value ? 3 : 0), 1 - props.lift * props.shrink]
  if (down === 0 && size === 1) return undefined
  if (size === 1) return `translate(0 ${down.toFixed(2)})`
  const about = (at: number) => at * (1 - size)
  return `matrix(${size.toFixed(3)} 0 0 ${size.toFixed(3)} ${about(x.value).toFixed(2)} ${(about(y.value) + down).toFixed(2)})`
})
/** The arm over it, to its left where rows run up the page. */
const arm = computed(() => {
  const end = Number((props.lift * 8 - 24).toFixed(2))
  return props.beside
    ? { x1: x.value - 54, y1: y.value, x2: x.value + end, y2: y.value }
    : { x1: x.value, y1: y.value - 54, x2: x.value, y2: y.value + end }
})
const pivot = computed(() => ({ x: x.value - (props.beside ? 58 : 0), y: y.value - (props.beside ? 0 : 58) }))
/** A notch towards the port, at the rim. */
const notch = computed(() => {
  const { port } = props.placed
  const [out, tip] = [port * (r - 1), port >= 0 ? -9 : 9]
  return props.beside
    ? `M${x.value + out} ${y.value + 9}l${tip}-9l${-tip}-9Z`
    : `M${x.value - 9} ${y.value + out}l9 ${tip}l9 ${-tip}Z`
})
/** Where what is known of it is written: under it, or beside it. */
const under = computed(() => (props.beside ? { x: x.value + 66, y: y.value - 62 } : { x: x.value, y: y.value }))
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
    :role="pickable ? undefined : 'img'"
    :aria-label="pickable ? undefined : label"
    :data-valve="placed.name"
  >
    <line class="arm s-edge" stroke-width="12" v-bind="arm" />
    <circle class="pivot f-panel s-quiet sw-3" :cx="pivot.x" :cy="pivot.y" :r="shown.number ? 14 : 9" />
    <text v-if="shown.number" class="number font-weight-bold f-ink fs-18 anchor-middle" :x="pivot.x" :y="pivot.y + 6">{{
      shown.number
    }}</text>
    <template v-if="raised">
      <circle v-if="placed.kind === 'intake'" class="f-shade" :cx="x + 5" :cy="y + 6" :r="r" />
      <path v-else class="f-shade" :d="octagon(r, x + 5, y + 6)" />
    </template>
    <g :transform="moved">
      <circle v-if="placed.kind === 'intake'" class="form f-ground sw-3" :cx="x" :cy="y" :r="r" />
      <path v-else class="form f-ground sw-3" :d="octagon(r, x, y)" />
      <path v-if="placed.port" class="notch" :d="notch" />
      <text class="name" :class="{ long: placed.name.length > 2 }" :x="x" :y="y + 7">{{ placed.name }}</text>
    </g>
    <g v-if="shown.waits" class="waits f-undecided">
      <circle v-for="by in [-9, 0, 9]" :key="by" :cx="x + 34 + by" :cy="y - 32" r="3.4" />
    </g>
    <g v-if="!bare" class="result">
      <text v-if="shown.was" class="in-figures fs-14 f-quiet anchor-middle" :x="under.x" :y="under.y + 106"
        >was {{ shown.was }}</text
      >
      <text
        v-if="shown.figure"
        class="gap in-figures fs-22 font-weight-bold anchor-middle"
        :class="{ five: shown.figure.length === 5, wide: shown.figure.length > 5 && !ends, ends }"
        :x="under.x"
        :y="under.y + (ends ? 51 : 61)"
      >
        <template v-if="ends"
          ><tspan :x="under.x">{{ ends[0] }}–</tspan><tspan :x="under.x" dy="16">{{ ends[1] }}</tspan></template
        ><template v-else>{{ shown.figure }}</template>
      </text>
      <line
        v-else
        class="none s-edge sw-3"
        :x1="under.x - 12"
        :x2="under.x + 12"
        :y1="under.y + 55"
        :y2="under.y + 55"
      />
      <text v-if="shown.void" class="fs-16 f-undecided anchor-middle" :x="under.x" :y="under.y + 86">{{
        shown.void
      }}</text>
      <g v-else-if="shown.verdict" :transform="`translate(${under.x} ${under.y + 82}) scale(.82)`">
        <path class="fill" :d="verdictPaths[shown.verdict].fill" />
        <path class="stroke f-none sw-4" :d="verdictPaths[shown.verdict].line" />
      </g>
    </g>
    <rect
      v-if="pickable"
      class="hit cursor-pointer"
      :x="x - 36"
      :y="y - 36"
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
  stroke: var(--brass);
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
  fill: none;
  pointer-events: all;
}

.hit:focus-visible {
  outline: none;
}

.valve:has(.hit:focus-visible) .form {
  stroke: var(--brass);
  stroke-width: 7;
}
</style>
