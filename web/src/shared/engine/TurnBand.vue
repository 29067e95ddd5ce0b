<script setup lang="ts">
import { computed } from 'vue'
import type { EngineView, PlanView } from '@/shared/api/client'

const props = withDefaults(
  defineProps<{
    engine: EngineView
    plan: PlanView | null
    crank: number | null
    stop: number
    /** Stops with nothing left to do in this phase. */
    finished: number[]
    /** Valves at the present stop. */
    here: string[]
    /** Where the crank may stand, while that is not known exactly. */
    places?: { from_deg: number; to_deg: number }[]
    /** The plumb line may be drawn along. */
    draggable?: boolean
    /** The sequence counts the valves along their row: each is named by its number too. */
    numbered?: boolean
    /** The valves that are shown; none: all. */
    only?: string[]
    /** How wide the two turns are drawn. */
    across?: number
  }>(),
  { across: 640 },
)
const dragged = defineModel<number>('dragged')

const left = computed(() => (props.numbered ? 84 : 62))
const top = 40
const x = (deg: number) => left.value + (deg / 720) * props.across
const valves = computed(() =>
  props.only?.length ? props.engine.valves.filter((v) => props.only!.includes(v.name)) : props.engine.valves,
)
const pitch = computed(() => (valves.value.length > 12 ? 15 : 22))
const bottom = computed(() => top + valves.value.length * pitch.value)
/** Arcs as pieces that do not wrap. */
const pieces = (arcs: { from_deg: number; to_deg: number }[]) =>
  arcs.flatMap((a) =>
    a.from_deg <= a.to_deg
      ? [[a.from_deg, a.to_deg]]
      : [
          [0, a.to_deg],
          [a.from_deg, 720],
        ],
  ) as [number, number][]
const bars = computed(() =>
  valves.value.map((v, i) => ({
    name: props.numbered ? `${v.row_number} · ${v.name}` : v.name,
    y: top + i * pitch.value,
    here: props.here.includes(v.name),
    pieces: pieces(v.may_set),
  })),
)
function drag(e: PointerEvent) {
  if (!props.draggable || (e.type === 'pointermove' && e.buttons === 0)) return
  const svg = e.currentTarget as SVGSVGElement
  const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM()!.inverse())
  if (e.type === 'pointerdown') svg.setPointerCapture(e.pointerId)
  const deg = Math.round(((at.x - left.value) / props.across) * 720)
  const peg = (props.plan?.stops ?? []).find((s) => Math.abs(s.crank_deg - deg) < 6)
  dragged.value = peg ? peg.crank_deg : Math.min(719, Math.max(0, deg))
}

const pegs = computed(() =>
  (props.plan?.stops ?? []).map((s, i) => ({
    x: x(s.crank_deg),
    n: i + 1,
    at: i === props.stop,
    done: props.finished.includes(i),
  })),
)
</script>

<template>
  <svg
    class="band d-block w-100 h-100"
    :class="{ draggable }"
    :viewBox="`0 0 ${left + across + 26} ${bottom + 40}`"
    role="img"
    aria-label="Where each valve may be set over two turns of the crank"
    @pointerdown="drag"
    @pointermove="drag"
  >
    <g v-for="b in bars" :key="b.name" v-memo="[b.name, b.y, pitch, b.here, across, engine]" :class="{ here: b.here }">
      <text class="name f-quiet fs-16 anchor-end" :x="left - 10" :y="b.y + pitch * 0.68">{{ b.name }}</text>
      <rect class="open f-sunk" :x="left" :y="b.y + 2" :width="across" :height="pitch - 5" />
      <rect
        v-for="(p, i) in b.pieces"
        :key="i"
        class="may f-bar"
        :x="x(p[0])"
        :y="b.y + 2"
        :width="x(p[1]) - x(p[0])"
        :height="pitch - 5"
      />
    </g>
    <rect
      v-for="(p, i) in pieces(places ?? [])"
      :key="`place${i}`"
      class="place f-wash s-brass sw-2"
      :x="x(p[0])"
      :y="top - 6"
      :width="Math.max(2, x(p[1]) - x(p[0]))"
      :height="bottom - top + 10"
    />
    <g v-for="p in pegs" :key="p.n" class="peg" :class="{ at: p.at, done: p.done }">
      <line class="s-quiet sw-2" :x1="p.x" :x2="p.x" :y1="top - 6" :y2="bottom + 2" />
      <circle class="f-ground s-quiet sw-2" :cx="p.x" cy="20" r="14" />
      <path v-if="p.done && !p.at" class="f-none s-in sw-3" :d="`M${p.x - 6} 20l4 5 8-10`" />
      <text v-else class="f-ink fs-16 font-weight-bold anchor-middle" :x="p.x" y="26">{{ p.n }}</text>
    </g>
    <text
      v-for="d in [0, 180, 360, 540, 720]"
      :key="d"
      class="in-figures f-quiet fs-15 anchor-middle"
      :x="x(d)"
      :y="bottom + 34"
    >
      {{ d }}°
    </text>
    <g v-if="crank !== null" :transform="`translate(${x(crank)} 0)`">
      <line class="s-ink sw-3" y1="36" :y2="bottom + 6" />
      <path class="f-ink" :d="`M-9 ${bottom + 3}H9L0 ${bottom + 18}Z`" />
    </g>
  </svg>
</template>

<style scoped>
.band {
  font-family: var(--words);
}

.draggable {
  cursor: ew-resize;
  touch-action: none;
}

.here .may {
  fill: var(--brass);
}

.here .name {
  fill: var(--brass);
  font-weight: 700;
}

.place {
  stroke-dasharray: 4 4;
}

.peg line {
  stroke-dasharray: 2 5;
}

.peg.done circle {
  stroke: var(--in);
}

.peg.at circle {
  fill: var(--brass);
  stroke: var(--brass);
}

.peg.at text {
  fill: var(--on-brass);
}
</style>
