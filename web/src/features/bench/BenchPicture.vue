<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import type { JobView, PlanView } from '@/shared/api/client'
import HeadDrawing from '@/shared/engine/HeadDrawing.vue'
import { afterPaint } from '@/shared/later'
import { stands, standWords } from '@/shared/engine/headLayout'
import { useStand } from '@/shared/engine/useStand'
import SideView from '@/shared/engine/SideView.vue'
import TurnBand from '@/shared/engine/TurnBand.vue'
import { phaseName } from '@/shared/phases'
import { gaps } from '@/shared/units'
import { barsOf, cylinderNotes, sideShown, stopShown, valvesShown } from './benchPicture'
import type { useFind } from './useFind'
import type { Doing } from './useJob'

/** The engine as it stands: its head, the two turns of the crank, and the valve in hand from the side. */
const props = defineProps<{
  view: JobView
  crank: number | null
  find: ReturnType<typeof useFind>
  choosing: boolean
  /** Another sequence that is looked at. */
  preview: PlanView | null
  /** At which valves something was done that is not on the disk yet. */
  waits: string[]
}>()
const emit = defineEmits<{
  do: [doing: Doing]
  /** A valve that does not stand clear is to be taken. */ take: [valve: string]
}>()

/** Words come first: the drawing follows once they are painted. */
const painted = ref(false)
onMounted(() => afterPaint(() => (painted.value = true)))
const drawn = shallowRef(props.view)
watch(
  () => props.view,
  () => afterPaint(() => (drawn.value = props.view)),
)

const state = computed(() => props.view.state)
const finding = computed(() => props.find.on.value)
const found = computed(() => props.find.found.value)
const stand = useStand(() => props.view.engine)
/** On many valves the band shows those that matter now; all of them a tap away. */
const allBars = ref(false)
function pick(valve: string) {
  if (finding.value) props.find.tapValve(valve)
  else if (!state.value.may_take || state.value.valves.find((v) => v.name === valve)!.settable)
    emit('do', { kind: 'picked', valve })
  else emit('take', valve)
}
/** The same each time, so that nothing is drawn anew for it. */
const none: never[] = []
const few = computed(() => (finding.value || props.preview ? none : barsOf(drawn.value)))
const only = computed(() => (allBars.value ? none : few.value))
const places = computed(() => (finding.value && found.value?.positions) || none)
const finished = computed(() => (props.preview ? none : drawn.value.state.finished))
const valves = computed(() => (finding.value ? props.find.shown(drawn.value) : valvesShown(drawn.value, props.waits)))
const notes = computed(() => {
  if (finding.value) return props.find.notes.value
  return props.choosing ? {} : cylinderNotes(drawn.value)
})
const plan = computed(() => props.preview ?? state.value.plan ?? null)
const here = computed(() => (finding.value ? (found.value?.settable ?? none) : drawn.value.state.now.here))
const limits = computed(() => {
  const { intake, exhaust, source, state: heat } = state.value.card
  const { window, unit } = gaps(intake.in_thou)
  return `${heat} ${window(intake)} / ${gaps(exhaust.in_thou).window(exhaust)} ${unit} · ${source}`
})
</script>

<template>
  <section class="picture d-grid shrinks">
    <div class="drawing shrinks px-2 pt-2 pb-1" tabindex="0" role="region" aria-label="The head, drawn">
      <HeadDrawing
        :engine="drawn.engine"
        :crank="crank"
        :shown="valves"
        :notes="notes"
        :pickable="finding || state.may_take ? 'all' : true"
        :cylinders-pickable="finding"
        :stand="stand"
        @pick="pick"
        @pick-cylinder="find.tapCylinder"
      />
    </div>
    <p class="d-flex flex-wrap align-center justify-space-between gr-1 gc-4 px-6 pt-1 pb-2 fs-16 line-below">
      <b>{{ phaseName(state.phase) }}</b>
      <VBtn
        class="stand tall-44"
        variant="text"
        :aria-label="`The head is drawn with the ${standWords[stand]}: change where you stand`"
        @click="stand = stands[(stands.indexOf(stand) + 1) % stands.length]!"
        >{{ standWords[stand] }}</VBtn
      >
      <VBtn v-if="state.waits_said" class="stand tall-44" variant="text" @click="emit('do', { kind: 'waiting' })"
        >parked, waits for {{ state.waits_said }}: carry on</VBtn
      >
      <span v-else class="quiet">limits {{ limits }}</span>
    </p>
    <div class="below d-grid shrinks">
      <div class="turns shrinks ps-2 pe-2 pt-1 pb-2" tabindex="0" role="region" aria-label="The two turns of the crank">
        <TurnBand
          v-if="painted"
          :engine="drawn.engine"
          :plan="plan"
          :crank="crank"
          :places="places"
          :stop="finding ? -1 : stopShown(drawn, preview)"
          :finished="finished"
          :here="here"
          :numbered="state.plan?.school === 'sum_rule'"
          :only="only"
          :across="400"
        />
        <VBtn v-if="few.length" class="bars tall-44" variant="text" @click="allBars = !allBars">{{
          allBars
            ? `only ${few.length === here.length ? 'this stop' : 'this bank'}`
            : `all ${drawn.engine.valves.length} valves`
        }}</VBtn>
      </div>
      <div class="aside shrinks ps-1 pe-3 pt-2 pb-2">
        <SideView v-if="painted" v-bind="sideShown(drawn)" :gear="drawn.engine.gear.picture" :crank="crank" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.picture {
  grid-template-rows: minmax(0, 1.32fr) auto minmax(0, 1fr);
  border-right: 2px solid var(--line);
}

/* What stands beside them changes with every step: they are laid out anew only where they change themselves. */
.drawing,
.turns,
.aside {
  contain: strict;
}

.drawing {
  overflow: auto;
  scrollbar-width: thin;
}

.stand {
  --v-btn-height: 44px;
  margin: -8px auto -8px 0;
}

.turns {
  position: relative;
}

.bars {
  --v-btn-height: 44px;
  position: absolute;
  right: 8px;
  bottom: 0;
}

.below {
  grid-template-columns: minmax(0, 1fr) minmax(0, 0.56fr);
  grid-template-rows: minmax(0, 1fr);
}

@media (width <= 1000px) {
  .drawing,
  .turns,
  .aside {
    contain: layout style paint;
  }

  .picture {
    display: block;
    border-top: 2px solid var(--line);
    border-right: 0;
  }

  .drawing :deep(svg) {
    min-width: max(640px, var(--least-width, 0px));
    height: auto;
  }

  .below {
    grid-template: auto auto / minmax(0, 1fr);
  }

  .turns :deep(svg) {
    height: auto;
  }

  .aside {
    max-width: 420px;
  }
}
</style>
