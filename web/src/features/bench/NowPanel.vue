<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue'
import type { JobView, PlanView, Schemas, ValveState } from '@/shared/api/client'
import { guard } from '@/shared/guard'
import { afterPaint } from '@/shared/later'
import type { Waiting } from '@/shared/useQueue'
import { panelFor } from './panels'
import InstrumentLine from '@/shared/InstrumentLine.vue'
import NoticeList from './parts/NoticeList.vue'
import PeopleLine from './parts/PeopleLine.vue'
import NowFoot from './parts/NowFoot.vue'
import NowHead from './parts/NowHead.vue'
import { provideBench, type Thermometer } from './useBench'
import { useTurns } from './useTurns'
import type { Doing, Line } from './useJob'
import { helpable, leads, turnsTo, wordsNow } from './wordsNow'

const props = defineProps<{
  view: JobView
  others: Schemas['Presence'][]
  crank: number | null
  choosing: boolean
  line: Line
  /** The program was heard a moment ago. */
  reached: boolean
  /** The engine is one to practise on: what the thermometer on it shows. */
  practice?: Thermometer
}>()
const emit = defineEmits<{
  do: [doing: Doing]
  undo: []
  preview: [plan: PlanView | null]
  choosing: [on: boolean]
  leave: [valve: string]
  setThough: [valve: string]
  /** The valve kept last is taken in hand again, to prove its drag by the leaves beside it. */
  crossCheck: [valve: ValveState]
  answer: [waits: Waiting]
  forget: [list: Waiting[]]
}>()

// A valve in hand may be set though another leaf is next, and read again though setting is.
const wantedAt = ref('')
const view = computed<JobView>(() => {
  const { state } = props.view
  const { instead } = state.now
  if (!instead || wantedAt.value !== state.newest) return props.view
  return { ...props.view, state: { ...state, now: { ...state.now, ...instead } } }
})

/** The valve whose drag is being proved by the leaves beside it. */
const proving = ref('')
function prove(last: ValveState) {
  proving.value = last.name
  emit('crossCheck', last)
}
/** What waits and is not in the state yet: where it was judged here, it is. */
const unjudged = computed(() =>
  props.view.state.newest === props.line.waiting.at(-1)?.body.id ? [] : props.line.waiting,
)
/** A reading that waits for the connection: nothing more is taken until the program has it, but what proves the same valve. */
const noted = computed(() => {
  const last = props.line.offline
    ? unjudged.value.findLast((w) => w.body.kind === 'reading' || w.body.kind === 'dial')
    : undefined
  return last && 'valve' in last.body && last.body.valve !== proving.value ? last.body.valve : ''
})

const { state, valve } = provideBench(view, unjudged, {
  practice: computed(() => props.practice ?? null),
  settling: computed(() => guard.on.value || noted.value !== ''),
  proving: computed(() => proving.value),
  instead: () => {
    const { newest } = props.view.state
    wantedAt.value = wantedAt.value === newest ? '' : newest
  },
  refused: computed(() => props.line.refusal !== ''),
  act: (doing) => {
    guard.begin()
    if (!('valve' in doing) || doing.valve !== proving.value) proving.value = ''
    emit('do', doing)
  },
  leave: (name) => emit('leave', name),
  setThough: (name) => emit('setThough', name),
  look: (plan) => emit('preview', plan),
  stay: () => emit('choosing', false),
})
const action = computed(() => (props.choosing ? 'choose_way' : state.value.now.action))
const shown = computed(() => panelFor(view.value, action.value))
// What comes up next, the next valve or another panel, is not answered by a press that was meant for what stood there before; and its
// instruction is in view.
const now = useTemplateRef('now')
watch(
  [action, () => state.value.now.stop, () => state.value.now.valve, () => shown.value.panel],
  () => {
    guard.begin()
    afterPaint(() => {
      now.value?.scrollTo?.(0, 0)
      if (matchMedia('(width <= 1000px)').matches) window.scrollTo(0, 0)
    })
  },
  { flush: 'post' },
)
/** Who turns the crank while this screen is at the valves; empty: nobody else. */
const helper = computed(() => props.others.find((o) => o.doing === 'helper')?.name ?? '')
/** Off the network one screen leads at the crank, and no other shows a turn. */
const elsewhere = computed(() => (props.line.offline || !props.reached) && !leads(state.value, props.others))
/** Something was not taken: until the mechanic has decided about it, there is nothing else to do here. */
const deciding = computed(() => props.line.refused.length > 0)
const button = computed(() =>
  elsewhere.value && helpable(action.value) ? '' : (shown.value.button?.(view.value) ?? ''),
)
const words = computed(() =>
  wordsNow(state.value, {
    choosing: props.choosing,
    noted: noted.value,
    elsewhere: elsewhere.value,
    refused: deciding.value,
  }),
)
const panel = useTemplateRef<{ key?(k: string): boolean }>('panel')
const turns = useTurns(action)
function go() {
  if (guard.on.value || turns.value || !shown.value.does || !button.value) return
  guard.begin()
  emit('do', shown.value.does(view.value))
}

function pick(by: number) {
  const { here, valve: at } = state.value.now
  const next = here[(here.indexOf(at) + by + here.length) % here.length]
  if (next && next !== at) emit('do', { kind: 'picked', valve: next })
}

function key(k: string): boolean {
  if (panel.value?.key?.(k)) return true
  if (k === 'z' || k === 'Z' || k === 'Backspace') emit('undo')
  else if (k === 'Enter' && button.value && !deciding.value) go()
  else if (shown.value.valves && (k === 'ArrowLeft' || k === 'ArrowRight')) pick(k === 'ArrowLeft' ? -1 : 1)
  else return false
  return true
}
defineExpose({ key })
</script>

<template>
  <section ref="now" class="now position-relative d-flex flex-column" aria-label="Now">
    <NowHead
      v-bind="{ words, engine: view.engine, crank }"
      :pulley="!shown.noPulley && !deciding"
      :turning="helpable(action) && !deciding ? turnsTo(view) : undefined"
    />
    <NoticeList :line="line" @answer="(w) => emit('answer', w)" @forget="(w) => emit('forget', w)" />
    <InstrumentLine v-if="!deciding" />
    <PeopleLine v-bind="{ others, valve: state.now.valve, waitsFor: state.now.waits_for }" />
    <template v-if="shown.valves && !deciding">
      <VAlert v-if="valve?.caution" role="note">{{ valve.caution }}</VAlert>
      <VAlert v-if="state.card.state === 'hot' && valve?.last?.time_doubtful" role="note">
        When {{ valve.name }} was read is in doubt: read it again while the engine is hot.
      </VAlert>
    </template>

    <div
      v-if="!deciding"
      class="panel d-flex flex-column"
      :class="[shown.scrolls, { 'two-rows': state.now.here.length > 5 }]"
    >
      <component :is="shown.panel" ref="panel" />
    </div>

    <NowFoot
      v-if="!shown.whole && !deciding"
      v-bind="{ action, button, hint: shown.hint ?? (button ? '' : 'Wait'), helper, turns }"
      :valves="Boolean(shown.valves)"
      :shows-kept="Boolean(shown.kept)"
      @undo="emit('undo')"
      @go="go"
      @prove="prove"
    />
    <VBtn v-else-if="state.undo && !choosing && !deciding" size="small" @click="emit('undo')">
      Undo the last step <kbd>Z</kbd>
    </VBtn>
  </section>
</template>

<style scoped>
.now :deep(.v-btn--size-small) {
  min-height: 56px;
}

.now {
  gap: 12px;
  min-height: 0;
  padding: 18px 22px 0;
  overflow-y: auto;
}

.panel {
  flex: 1 0 auto;
  gap: inherit;
  min-height: 0;
}

.panel:not(.scrolls) > :deep(:only-child) {
  flex: 1 0 auto;
}

/* What scrolls by itself gives way to what stands around it. */
.scrolls {
  flex: 1 1 0;
}

/* Three leaves with what stands around them, valves in two rows too; below that the whole scrolls. */
.leaves {
  min-height: 400px;
}

@media (width > 1100px) {
  .leaves.two-rows {
    min-height: 472px;
  }
}

@media (width <= 1000px) {
  .panel {
    flex: 1 1 auto;
    min-height: 0;
  }

  .now {
    overflow-y: visible;
  }
}

@media (width <= 480px) {
  .now {
    gap: 8px;
    padding: 10px 12px 0;
  }
}

/* At twice the size, or on a phone lying down: instruction, verdict, answers and next action in one view; the rest is below. */
@media (width <= 1000px) and (height <= 480px) {
  .now {
    gap: 6px;
    padding: 6px 14px 0;
  }
}
</style>
