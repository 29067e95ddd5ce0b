<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import type { HappeningOf, JobView, PlanView, Schemas } from '@/shared/api/client'
import CrankPulley from '@/shared/engine/CrankPulley.vue'
import { octagon } from '@/shared/engine/shapes'
import { leaves } from '@/shared/units'
import type { Waiting } from '@/shared/useQueue'
import type { Doing } from './useJob'
import { headline, kindOf, limitsOf, primary, valveNow } from './benchWords'
import AdjustPanel from './AdjustPanel.vue'
import ChooseWay from './ChooseWay.vue'
import LeafLadder from './LeafLadder.vue'
import PreparePanel from './PreparePanel.vue'
import RefusedList from './RefusedList.vue'
import ShimPanel from './ShimPanel.vue'
import SignPanel from './SignPanel.vue'
import TurnPanel from './TurnPanel.vue'
import VerdictStrip from './VerdictStrip.vue'

const props = defineProps<{
  view: JobView
  crank: number | null
  choosing: boolean
  waiting: Waiting[]
  refused: Waiting[]
  offline: boolean
  told: string
  refusal: string
}>()
const emit = defineEmits<{
  do: [doing: Doing]
  undo: []
  preview: [plan: PlanView | null]
  choosing: [on: boolean]
  leave: [valve: string]
  keepThere: [waits: Waiting]
  forget: [waits: Waiting]
}>()

const router = useRouter()
const state = computed(() => props.view.state)
const action = computed(() => (props.choosing ? 'choose_way' : state.value.now.action))
const words = computed(() =>
  props.choosing
    ? { before: 'Choose another ', strong: 'sequence.', after: '', sub: 'Readings stay as they are.' }
    : headline(props.view),
)
const valve = computed(() => valveNow(props.view))
const button = computed(() => primary(props.view))
const bench = computed(() => ['read', 'keep', 'lock', 'adjust'].includes(action.value))
const shims = computed(
  () =>
    props.view.engine.adjuster === 'shim' &&
    state.value.phase === 'adjust' &&
    ['adjust', 'turn'].includes(action.value),
)
const target = computed(() => (action.value === 'turn' ? state.value.plan!.stops[state.value.now.stop]! : null))
const reading = computed(() => ['read', 'keep'].includes(action.value) && valve.value)
const shownJudgement = computed(() =>
  action.value === 'adjust' ? valve.value?.last?.judgement : valve.value?.judgement,
)

// A reading that waits to be sent is shown as felt at once.
const round = computed(() => [
  ...(valve.value?.round ?? []),
  ...props.waiting
    .map((w) => w.body)
    .filter((h): h is HappeningOf<'reading'> => h.kind === 'reading' && h.valve === valve.value?.name)
    .map((h) => ({
      leaves_mm: h.leaves_mm ?? [],
      angled: h.angled ?? (h.leaves_mm ?? []).map(() => false),
      name: leaves(h.leaves_mm ?? []),
      feel: h.feel as Schemas['Reading']['feel'],
    })),
  ...props.waiting
    .map((w) => w.body)
    .filter((h): h is HappeningOf<'dial'> => h.kind === 'dial' && h.valve === valve.value?.name)
    .map((h) => ({ leaves_mm: [], angled: [], name: '', feel: '' as const, dial_mm: h.gap_mm })),
])
const panel = useTemplateRef<{ key(k: string): boolean }>('panel')

// A bounce or a double tap on the one button is one press: what comes up next is not pressed by it. Anything done in between ends that.
const settle = 400
const settling = ref(false)
let timer = 0
function pause(on: boolean) {
  clearTimeout(timer)
  settling.value = on
  if (on) timer = window.setTimeout(() => (settling.value = false), settle)
}

function go() {
  if (settling.value) return
  pause(true)
  const { now } = state.value
  switch (now.action) {
    case 'turn':
      return emit('do', { kind: 'turned', stop: now.stop })
    case 'keep':
      return emit('do', { kind: 'kept', valve: now.valve })
    case 'adjust':
      return emit('do', {
        kind: 'adjusted',
        valve: now.valve,
        leaves_mm: valve.value!.set_by_mm,
        angled: valve.value!.set_by_angled,
      })
    case 'lock':
      return emit('do', { kind: 'locked', valve: now.valve })
    case 'bar_over':
      return emit('do', { kind: 'barred_over' })
    case 'go_hot':
      return emit('do', { kind: 'went_hot' })
  }
}

function pick(by: number) {
  const { here, valve: at } = state.value.now
  const next = here[(here.indexOf(at) + by + here.length) % here.length]
  if (next && next !== at) emit('do', { kind: 'picked', valve: next })
}

function feel(list: number[], angled: boolean[], f: Schemas['Reading']['feel']) {
  pause(false)
  emit('do', { kind: 'reading', valve: state.value.now.valve, leaves_mm: list, angled, feel: f })
}

function key(k: string): boolean {
  if (panel.value?.key(k)) return true
  if (k === 'z' || k === 'Z' || k === 'Backspace') emit('undo')
  else if (k === 'Enter' && button.value && !props.choosing) go()
  else if (k === 'Enter' && action.value === 'done') void router.push(`/jobs/${state.value.id}/sheet`)
  else if (bench.value && (k === 'ArrowLeft' || k === 'ArrowRight')) pick(k === 'ArrowLeft' ? -1 : 1)
  else return false
  return true
}
defineExpose({ key })
</script>

<template>
  <section class="now" aria-label="Now" :aria-busy="waiting.length > 0 || undefined">
    <header class="head">
      <div v-if="!['choose_way', 'prepare', 'sign', 'done'].includes(action)" class="dial">
        <CrankPulley
          :crank="crank"
          :rotation="view.engine.rotation"
          :marks="view.engine.marks_deg ?? []"
          :turning="['turn', 'bar_over'].includes(action)"
        />
      </div>
      <div>
        <h2 aria-live="polite">
          {{ words.before }}<em>{{ words.strong }}</em
          >{{ words.after }}
        </h2>
        <p v-if="words.sub" class="sub">{{ words.sub }}</p>
      </div>
    </header>

    <p v-if="refusal" class="refusal" role="alert">{{ refusal }}</p>
    <p v-if="offline" class="refusal" role="alert">
      {{ told || 'The program cannot be reached.' }} {{ waiting.length }}
      {{ waiting.length === 1 ? 'entry waits' : 'entries wait' }} here to be sent; nothing is lost.
    </p>
    <RefusedList :list="refused" @keep-there="(w) => emit('keepThere', w)" @forget="(w) => emit('forget', w)" />
    <p v-if="valve?.caution && bench" class="mx-warn" role="note">{{ valve.caution }}</p>
    <p v-if="bench && state.card.state === 'hot' && valve?.last?.time_doubtful" class="mx-warn" role="note">
      When {{ valve.name }} was read is in doubt: read it again while the engine is hot.
    </p>

    <ChooseWay
      v-if="action === 'choose_way'"
      ref="panel"
      :job-id="state.id"
      :valves="state.valves.length"
      :present="state.plan ?? null"
      @choose="
        (p) =>
          emit('do', {
            kind: 'way_chosen',
            school: p.school,
            order: p.order,
            direction: p.direction,
            positions: p.positions,
            stop_count: p.stop_count,
          })
      "
      @preview="(p) => emit('preview', p)"
      @cancel="emit('choosing', false)"
    />
    <PreparePanel
      v-else-if="action === 'prepare'"
      ref="panel"
      :view="view"
      :refused="refusal !== ''"
      @prepared="(e, a, reason) => emit('do', { kind: 'prepared', engine_c: e, ambient_c: a, reason })"
      @noted="(e, a) => emit('do', { kind: 'temperature', engine_c: e, ambient_c: a })"
    />
    <SignPanel
      v-else-if="action === 'sign'"
      ref="panel"
      :view="view"
      @sign="(by) => emit('do', { kind: 'signed', by, tools_out: true })"
    />

    <ShimPanel
      v-else-if="shims"
      ref="panel"
      class="grow"
      :view="view"
      @sized="(v, mm) => emit('do', { kind: 'sized', valve: v, shim_mm: mm })"
      @fitted="(v, mm, from, out) => emit('do', { kind: 'adjusted', valve: v, shim_mm: mm, from, cams_out: out })"
      @leave="(v) => emit('leave', v)"
    />
    <template v-else-if="bench">
      <div class="tabs" role="group" aria-label="Valves at this stop">
        <button
          v-for="name in state.now.here.includes(state.now.valve)
            ? state.now.here
            : [state.now.valve, ...state.now.here]"
          :key="name"
          type="button"
          class="tab"
          :class="{ on: name === state.now.valve }"
          :aria-pressed="name === state.now.valve"
          @click="name !== state.now.valve && emit('do', { kind: 'picked', valve: name })"
        >
          <svg viewBox="-24 -24 48 48" aria-hidden="true">
            <circle v-if="kindOf(view, name) === 'intake'" r="20" />
            <path v-else :d="octagon(20)" />
          </svg>
          <span
            ><b>{{ name }}</b
            ><small>{{ kindOf(view, name) }}, {{ limitsOf(view, name) }}</small></span
          >
        </button>
      </div>
      <LeafLadder
        v-if="reading"
        ref="panel"
        class="grow"
        :valve="valve!.name"
        :rungs="state.now.ladder"
        :round="round"
        :try-next="valve!.judgement?.try_next ?? ''"
        @feel="feel"
        @withdraw="(i) => emit('do', { kind: 'withdrawn', valve: valve!.name, index: i })"
        @dial="(gap, doubt) => emit('do', { kind: 'dial', valve: valve!.name, gap_mm: gap, uncertainty_mm: doubt })"
      />
      <AdjustPanel
        v-else
        ref="panel"
        class="grow"
        :view="view"
        :valve="valve!"
        :locking="action === 'lock'"
        @feel="feel"
        @leave="emit('leave', valve!.name)"
      />
    </template>

    <TurnPanel v-else-if="target" class="grow" :view="view" :stop="target" />
    <div v-else-if="action === 'bar_over'" class="grow">
      <p class="mx-how">
        Two turns of the crank are one of the cam: every follower has been over its lobe once and settled.
      </p>
      <p class="mx-warn">Hands clear of rockers, cams, belts and pulleys. Call, and wait for the answer.</p>
    </div>
    <div v-else-if="action === 'go_hot'" class="grow">
      <p class="mx-how">
        The cold start is signed by {{ state.signed_by }}, provisionally. The job is finished when the hot pass is
        signed: run the engine to its temperature, shut it off, and read every valve while it is hot against the hot
        figures.
      </p>
      <p class="mx-warn">Hot parts and oil burn. Socket or handle off the crank before the starter is touched.</p>
    </div>
    <div v-else-if="action === 'done'" class="grow done">
      <p>Every reading is on the sheet: as found, as left, limits, temperatures, who and when.</p>
      <RouterLink class="mx-btn primary" :to="`/jobs/${state.id}/sheet`"
        >See and print the sheet <kbd>Enter</kbd></RouterLink
      >
    </div>

    <div v-if="action === 'read' && valve?.needs && round.length === 0 && valve.stage === ''" class="else">
      <button class="mx-btn" type="button" @click="emit('do', { kind: 'adjusted', valve: valve.name })">
        Re-adjust {{ valve.name }}
      </button>
      <button class="mx-btn" type="button" @click="emit('leave', valve.name)">
        Leave {{ valve.name }} out of limits…
      </button>
    </div>

    <div v-if="!['prepare', 'sign', 'choose_way', 'done'].includes(action)" class="foot">
      <VerdictStrip
        v-if="bench && !shims && shownJudgement"
        :judgement="shownJudgement"
        :screw="['adjust', 'lock'].includes(action) ? null : valve?.screw"
      />
      <footer class="do">
        <button class="mx-btn" type="button" :disabled="!state.undo" @click="emit('undo')">Undo <kbd>Z</kbd></button>
        <button v-if="button" class="mx-btn primary go" type="button" :aria-disabled="settling" @click="go">
          {{ button }} <kbd>Enter</kbd>
        </button>
        <span v-else class="mx-btn go hint quiet">{{
          shims ? 'Fit each shim, then tap Fitted' : 'Tap how the feeler feels'
        }}</span>
      </footer>
    </div>
    <button v-else-if="state.undo && action !== 'choose_way'" class="mx-btn small" type="button" @click="emit('undo')">
      Undo the last step <kbd>Z</kbd>
    </button>
  </section>
</template>

<style scoped>
.now :deep(.mx-btn.small) {
  min-height: 56px;
}

.now {
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-height: 0;
  padding: 18px 22px 0;
  overflow-y: auto;
}

.head {
  display: flex;
  align-items: center;
  gap: 18px;
}

.dial {
  flex: none;
  width: 104px;
  height: 108px;
}

h2 {
  font-size: clamp(28px, 2.9vw, 40px);
  line-height: 1.1;
  text-wrap: balance;
}

em {
  color: var(--brass);
  font-style: normal;
}

.sub {
  margin-top: 6px;
  color: var(--quiet);
  font-size: 20px;
}

.refusal {
  padding: 10px 14px;
  border-left: 8px solid var(--tight);
  background: var(--panel);
}

.tabs {
  display: flex;
  flex: none;
  gap: 10px;
  overflow-x: auto;
  padding-bottom: 2px;
  scrollbar-width: none;
}

.tab {
  display: flex;
  flex: 1 0 auto;
  align-items: center;
  gap: 12px;
  min-height: 68px;
  padding: 6px 12px;
  border: 2px solid var(--line);
  border-radius: 4px;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}

.tab svg {
  flex: none;
  width: 38px;
  height: 38px;
  fill: none;
  stroke: var(--quiet);
  stroke-width: 3.5;
}

.tab b {
  display: block;
  font-size: 28px;
  line-height: 1.05;
}

.tab small {
  color: var(--quiet);
  font-size: 15px;
  line-height: 1.1;
}

.tab.on {
  border-color: var(--brass);
  background: var(--wash);
}

.tab.on svg {
  stroke: var(--brass);
}

.grow {
  flex: 1 0 auto;
  min-height: 0;
}

/* The ladder takes what room there is, and three leaves' at least. */
.grow.wrap {
  flex: 1 1 0;
  min-height: 250px;
}

.done {
  display: grid;
  align-content: start;
  gap: 18px;
  font-size: 20px;
}

.else {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}

/* Verdict and next action stay in view, whatever scrolls above them. */
.foot {
  position: sticky;
  bottom: 0;
  z-index: 2;
  display: grid;
  flex: none;
  gap: 10px;
  padding: 6px 0 18px;
  background: var(--ground);
}

.do {
  display: flex;
  gap: 10px;
}

.do .mx-btn {
  min-height: 68px;
}

.go {
  flex: 1;
  font-size: 22px;
}

@media (width <= 1000px) {
  .grow,
  .grow.wrap {
    flex: 1 1 auto;
    min-height: 0;
  }

  .now {
    overflow-y: visible;
  }

  .foot {
    padding-bottom: 6px;
  }
}

@media (width <= 480px) {
  .now {
    gap: 8px;
    padding: 10px 12px 0;
  }

  .dial {
    display: none;
  }
}

/* At twice the size, or on a phone lying down: instruction, verdict, answers and next action in one view; the rest is below. */
@media (width <= 1000px) and (height <= 480px) {
  .now {
    gap: 6px;
    padding: 6px 14px 0;
  }

  .dial,
  .sub,
  .tab small {
    display: none;
  }

  h2 {
    font-size: 26px;
  }

  .tab {
    min-height: 56px;
    padding: 2px 10px;
  }

  .tab b {
    font-size: 24px;
  }

  .do .mx-btn {
    min-height: 58px;
  }
}

.hint {
  border-style: dashed;
  cursor: default;
}
</style>
