<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import type { JobView, Schemas } from '@/shared/api/client'
import HeadDrawing, { type ValveShown } from '@/shared/engine/HeadDrawing.vue'
import { liftAt } from '@/shared/engine/headLayout'
import { cylinderNotes } from '@/features/bench/benchPicture'
import CrankInHand from './CrankInHand.vue'
import LeafInHand from './LeafInHand.vue'
import ScrewInHand from './ScrewInHand.vue'
import ShimInHand from './ShimInHand.vue'
import SideInHand from './SideInHand.vue'
import { useHandle } from './useHandle'
import type { Hand } from './usePractice'

/** The practice engine, seen from above and the valve in hand from the side, and what is done to it by hand. */
const props = defineProps<{
  view: JobView
  eyes: Schemas['Eyes']
  valve: string
  shown: Record<string, ValveShown>
  /** Nothing is told: any valve may be taken in hand. */
  untold: boolean
  advised: number
  leaves: number[]
  hand: (h: Hand) => Promise<Schemas['PracticeAnswer'] | null>
}>()
const emit = defineEmits<{ pick: [valve: string] }>()

/** What is seen while the crank is in the hand. */
const turning = ref<number | null>(null)
const crank = computed(() => turning.value ?? props.eyes.crank_deg)
const loose = computed(() => props.eyes.loose.includes(props.valve))
/** The valves as eyes see them: one whose cam is worn flat opens by less than its cam card says. */
const engine = computed(() => {
  const { engine } = props.view
  const seen = new Map(props.eyes.open.map((o) => [o.valve, o.part]))
  const valves = engine.valves.map((v) => {
    const by = (seen.get(v.name) ?? 1) / (liftAt(v.lift, props.eyes.crank_deg) || 1)
    return seen.has(v.name) && by < 0.9 ? { ...v, lift: v.lift.map((l) => l * by) } : v
  })
  return { ...engine, valves }
})
/** The same each time while the crank turns, so that nothing is drawn anew for it. */
const notes = computed(() => (props.untold ? {} : cylinderNotes(props.view)))
const settable = computed(() => props.view.state.valves.find((v) => v.name === props.valve)?.settable ?? false)
const inHand = computed(() => engine.value.valves.find((v) => v.name === props.valve))

async function slides(mm: number) {
  const got = await props.hand({ slide: { valve: props.valve, leaves_mm: [mm] } })
  return got?.felt?.pull ?? null
}
async function turned(byDeg: number) {
  await props.hand({ turn_deg: byDeg })
  turning.value = null
}
async function screws(by_deg: number) {
  side.value?.changed()
  const got = await props.hand({ screw: { valve: props.valve, by_deg } })
  return got?.moved_deg ?? 0
}

async function takes() {
  side.value?.changed()
  const got = await props.hand({ take_shim: props.valve })
  return got?.shim ?? null
}
const side = useTemplateRef('side')
const shim = useTemplateRef('shim')
const cranked = useTemplateRef('cranked')
/** A handle that turns goes where it goes: its own weight is in it. */
const {
  there: handle,
  wanted: byHandle,
  says: ofHandle,
} = useHandle({ pushed: (by) => cranked.value?.moved(by), done: () => cranked.value?.done() })
const leaf = useTemplateRef('leaf')
const screw = useTemplateRef('screw')
/** Those of the screw are the bench's where there is none: a size is typed there. */
const atScrew: Record<string, () => unknown> = {
  u: () => screw.value?.nut(),
  ',': () => screw.value?.turns(-5),
  '.': () => screw.value?.turns(5),
  '<': () => screw.value?.turns(-30),
  '>': () => screw.value?.turns(30),
}
const atShim: Record<string, () => unknown> = {
  o: () => shim.value?.act(),
  '[': () => shim.value?.other(-1),
  ']': () => shim.value?.other(1),
}
const keys: Record<string, () => unknown> = {
  l: () => leaf.value?.go(),
  L: () => leaf.value?.go(),
  '+': () => leaf.value?.other(1),
  '-': () => leaf.value?.other(-1),
  x: () => props.hand({ take_off: true }),
  r: () => side.value?.rocks(),
}
const cranks: Record<string, number> = {
  ArrowRight: 5,
  ArrowLeft: -5,
  ArrowUp: 30,
  ArrowDown: -30,
  PageUp: 90,
  PageDown: -90,
}
defineExpose({
  key(k: string): boolean {
    const does = keys[k] ?? (props.eyes.shims ? atShim : atScrew)[k]
    if (does) void does()
    else if (props.untold && k === 'd')
      void side.value?.dials() // where the bench judges it opens the entry of a dial reading
    else if (props.untold && cranks[k]) cranked.value?.steps(cranks[k])
    else return false
    return true
  },
})
</script>

<template>
  <section class="engine d-grid shrinks" aria-label="The practice engine">
    <div class="seen d-grid shrinks">
      <div class="drawing shrinks px-2 pt-2 pb-1" tabindex="0" role="region" aria-label="The head, drawn">
        <HeadDrawing
          :engine="engine"
          :crank="crank"
          :shown="shown"
          :notes="notes"
          :pickable="untold ? 'all' : true"
          @pick="emit('pick', $event)"
        />
      </div>
      <SideInHand
        ref="side"
        :valve="inHand"
        :gear="view.engine.gear"
        :crank="crank"
        :settable="settable"
        :untold="untold"
        :hand="hand"
      />
    </div>
    <div class="hands d-grid ga-4 pa-4">
      <CrankInHand
        ref="cranked"
        :engine="view.engine"
        :crank="eyes.crank_deg"
        :firing="eyes.firing_deg"
        :tool="eyes.tool"
        @shows="turning = $event"
        @turn="turned"
        @off="hand({ take_off: true })"
      >
        <VBtn v-if="handle" size="small" :aria-pressed="byHandle" @click="byHandle = !byHandle">{{
          byHandle ? 'The encoder turns it' : 'Turn it by the encoder'
        }}</VBtn>
        <p v-if="ofHandle" class="fs-16" role="status">{{ ofHandle }}</p>
      </CrankInHand>
      <LeafInHand ref="leaf" :valve="valve" :advised="advised" :leaves="leaves" :slide="slides" />
      <ShimInHand
        v-if="eyes.shims"
        ref="shim"
        :valve="valve"
        :shims="eyes.shims"
        :take="takes"
        @fit="(shim_mm) => hand({ fit_shim: { valve, shim_mm } })"
      />
      <ScrewInHand
        v-else
        ref="screw"
        :gear="view.engine.gear"
        :valve="valve"
        :loose="loose"
        :turn="screws"
        @loosen="hand({ loosen: valve })"
        @tighten="hand({ tighten: valve })"
      />
    </div>
  </section>
</template>

<style scoped>
.engine {
  grid-template-rows: minmax(0, 1fr) auto;
  border-right: 2px solid var(--line);
}

.seen {
  grid-template-columns: minmax(0, 1fr) 210px;
}

.drawing {
  overflow: auto;
  contain: strict;
}

/* Without a valve in hand there is nothing beside it. */
.drawing:only-child {
  grid-column: 1 / -1;
}

.hands {
  grid-template-columns: repeat(3, minmax(0, 1fr));
  border-top: 2px solid var(--line);
}

@media (width <= 1000px) {
  .engine {
    grid-template-rows: 300px auto;
    border-right: 0;
  }
}

@media (width <= 640px) {
  .engine {
    grid-template-rows: auto auto;
  }

  .seen {
    grid-template: 220px / minmax(0, 1fr);
    grid-auto-rows: 160px;
  }

  .hands {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
