<script setup lang="ts">
import { computed, onMounted, useTemplateRef, watch } from 'vue'
import type { EngineView, Verdict } from '@/shared/api/client'
import { afterPaint } from '@/shared/later'
import HeadBank from './HeadBank.vue'
import HeadCylinder from './HeadCylinder.vue'
import HeadValve from './HeadValve.vue'
import { boresOf, layOutFrom, leastScale, liftAt, shrinks, standWords, wideScale, type Stand } from './headLayout'
import { useShares } from './useShares'

/** What is shown of one valve. */
export interface ValveShown {
  figure: string
  /** The figure as found of a valve that was set, over the one as left. */
  was?: string
  /** The figure is thousandths of an inch. */
  inThou?: boolean
  verdict: Verdict | null
  settable: boolean
  /** Nothing is told of where it may be set. */
  untold?: boolean
  here: boolean
  chosen: boolean
  /** Its number in the row, where the sequence counts by it. */
  number?: number
  /** Why its reading does not count; stands instead of the verdict. */
  void?: string
  /** Something that was done at it is not on the workshop's disk yet. */
  waits?: boolean
}

const props = defineProps<{
  engine: EngineView
  crank: number | null
  shown: Record<string, ValveShown>
  /** A word under a cylinder: "rocking", "read here". */
  notes?: Record<number, { text: string; strong: boolean }>
  /** Valves may be tapped: those that may be set here, or all. */
  pickable?: boolean | 'all'
  /** Without room for figures under the valves: larger on a small place. */
  bare?: boolean
  /** Cylinders may be tapped. */
  cylindersPickable?: boolean
  /** Where the front of the engine lies for whoever looks; left out: on the left. */
  stand?: Stand
}>()
defineEmits<{ pick: [valve: string]; pickCylinder: [cylinder: number] }>()

const from = computed(() => props.stand ?? 'left')
const near = computed(() => from.value === 'near')
const layout = computed(() => layOutFrom(props.engine, from.value, props.bare))
/** Where the front end is drawn. */
const front = computed(() => {
  const { width, height } = layout.value
  if (near.value) return { x: width / 2 - 8, y: height - 48 }
  return { x: from.value === 'right' ? width - 36 : 36, y: height / 2 - 8 }
})
/** With several banks the front end is drawn with each bank leaning as it does, seen from the front. */
const several = computed(() => props.engine.banks.length > 1)
const lifts = computed(() => new Map(props.engine.valves.map((v) => [v.name, v.lift])))
const bores = computed(() => boresOf(layout.value, near.value))
// A drawing with targets does not shrink below what a finger hits: what is around it scrolls instead, and brings what is to be done into view.
const least = computed(() =>
  props.pickable
    ? {
        '--least-width': `${Math.ceil(layout.value.width * leastScale)}px`,
        '--least-height': `${Math.ceil(layout.value.height * leastScale)}px`,
        '--wide-width': `${Math.ceil(layout.value.width * wideScale)}px`,
        '--wide-height': `${Math.ceil(layout.value.height * wideScale)}px`,
      }
    : {},
)
const svg = useTemplateRef<SVGSVGElement>('svg')
const wanted = computed(() =>
  Object.entries(props.shown)
    .filter(([, v]) => v.chosen)
    .map(([name]) => name)
    .join(),
)
function reveal() {
  const box = svg.value?.parentElement
  const valves = [...(svg.value?.querySelectorAll('.valve.chosen') ?? [])]
  if (!box || !valves.length) return
  const view = box.getBoundingClientRect()
  const [first, last] = [valves[0]!.getBoundingClientRect(), valves.at(-1)!.getBoundingClientRect()]
  box.scrollTop +=
    (Math.min(first.top, last.top) + Math.max(first.bottom, last.bottom)) / 2 - (view.top + view.height / 2)
  box.scrollLeft += (first.left + last.right) / 2 - (view.left + view.width / 2)
}
// It is measured where it stands once it is painted, so that the words beside it need not wait for that.
watch(wanted, () => afterPaint(reveal), { flush: 'post' })
onMounted(() => afterPaint(reveal))
/** What is shown of each valve, to be compared: made when that changes, and not with each frame of a turning crank. */
const marks = computed(() =>
  Object.fromEntries(Object.entries(props.shown).map(([name, of]) => [name, JSON.stringify(of)])),
)
const crankFor = useShares(
  () => props.crank,
  () => props.engine.valves.length,
)
/** How far each valve is lifted, in the order in which they are drawn. */
const lifted = computed(() =>
  layout.value.valves.map((v, i) => {
    const crank = crankFor(i)
    return crank === null ? 0 : liftAt(lifts.value.get(v.name)!, crank)
  }),
)
</script>

<template>
  <svg
    ref="svg"
    class="head d-block w-100 h-100"
    :style="least"
    :viewBox="`0 0 ${layout.width} ${layout.height}`"
    role="group"
    :aria-label="`Head of ${engine.name}, ${standWords[from]}`"
  >
    <HeadBank v-for="b in layout.banks" :key="b.name" v-bind="{ bank: b, near, several }" />
    <g class="front" :transform="`translate(${front.x} ${front.y})`">
      <template v-if="several">
        <g v-for="b in engine.banks" :key="b.name" :transform="`rotate(${b.angle_deg})`">
          <line class="s-quiet sw-5" y1="0" y2="-24" />
          <line class="s-quiet sw-5" x1="-10" x2="10" y1="-26" y2="-26" />
        </g>
      </template>
      <circle v-else class="f-none s-quiet sw-3" r="27" />
      <circle class="s-quiet sw-3 f-quiet" r="5" />
      <text class="f-quiet fs-16 anchor-middle" :x="near ? 56 : 0" :y="near ? 6 : 50">front</text>
    </g>
    <HeadCylinder
      v-for="c in bores"
      :key="c.number"
      v-bind="{ bore: c, near, note: notes?.[c.number], pickable: cylindersPickable }"
      @pick="$emit('pickCylinder', c.number)"
    />
    <template v-for="b in layout.banks" :key="b.name">
      <line
        v-for="y in b.shafts"
        :key="y"
        class="shaft s-line cap-round"
        stroke-width="8"
        v-bind="
          near
            ? { x1: y, x2: y, y1: b.y + 16, y2: b.y + b.height - 16 }
            : { x1: b.x + 16, x2: b.x + b.width - 16, y1: y, y2: y }
        "
      />
    </template>
    <HeadValve
      v-for="(v, i) in layout.valves"
      :key="v.name"
      v-memo="[v, lifted[i], marks[v.name], bare, near, pickable]"
      :placed="v"
      :lift="lifted[i]!"
      :shown="shown[v.name]!"
      :bare="bare"
      :beside="near"
      :shrink="shrinks(layout.width)"
      :pickable="pickable === 'all' || (pickable && shown[v.name]!.settable)"
      @pick="$emit('pick', v.name)"
    />
  </svg>
</template>

<style scoped>
.head {
  min-width: var(--least-width, 0);
  min-height: var(--least-height, 0);
  font-family: var(--words);
}

@media (width >= 1280px) {
  .head {
    min-width: var(--wide-width, 0);
    min-height: var(--wide-height, 0);
  }
}
</style>
