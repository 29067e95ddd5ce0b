<script setup lang="ts">
import AppPage from '@/shared/AppPage.vue'
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { PlanView } from '@/shared/api/client'
import { useLocalStorage } from '@vueuse/core'
import HeadDrawing from '@/shared/engine/HeadDrawing.vue'
import { stands, standWords, type Stand } from '@/shared/engine/headLayout'
import SideView from '@/shared/engine/SideView.vue'
import TurnBand from '@/shared/engine/TurnBand.vue'
import { useCrank } from '@/shared/engine/useCrank'
import ReasonDialog from '@/shared/ReasonDialog.vue'
import { gaps } from '@/shared/units'
import { phaseName } from '@/shared/phases'
import { cylinderNotes, sideShown, stopShown, valvesShown } from './benchPicture'
import FindPanel from './panels/FindPanel.vue'
import BenchBar from './BenchBar.vue'
import KeyHelp from './parts/KeyHelp.vue'
import LeaveDialog from './parts/LeaveDialog.vue'
import NowPanel from './NowPanel.vue'
import { useFind } from './useFind'
import { useJob, type Doing } from './useJob'
import { guard } from '@/shared/guard'
import { useKeys } from '@/shared/useKeys'

const id = String(useRoute().params.id)
const {
  view,
  state,
  trouble,
  refusal,
  waiting,
  refused,
  offline,
  told,
  unkept,
  load,
  send,
  undo,
  reopen,
  keepThere,
  forget,
} = useJob(id)
onMounted(load)

const crank = useCrank(
  computed(() => state.value?.crank_deg ?? null),
  computed(() => state.value?.plan?.direction === 'back'),
)
const find = useFind(id)
const { on: finding } = find
const crankShown = computed(() => (finding.value ? (find.found.value?.crank_deg ?? null) : crank.value))
// Where the crank stands may be asked, and doubted, in every state after the sequence is chosen.
const mayFind = computed(
  () => Boolean(state.value?.plan) && !['choose_way', 'await_hot', 'done'].includes(state.value!.phase),
)
/** Where this screen’s mechanic stands, chosen once. */
const stand = useLocalStorage<Stand>('metronix.stand', 'left')
const choosing = ref(false)
const preview = ref<PlanView | null>(null)
const help = ref(false)
const leaving = ref('')
const settingThough = ref('')
const now = useTemplateRef('now')
const panel = useTemplateRef('panel')

const plan = computed(() => preview.value ?? state.value?.plan ?? null)
const limits = computed(() => {
  const { intake, exhaust, source, state: heat } = state.value!.card
  const { window, unit } = gaps(intake.in_thou)
  return `${heat} ${window(intake)} / ${gaps(exhaust.in_thou).window(exhaust)} ${unit} · ${source}`
})

watch(finding, guard.begin, { flush: 'sync' })

function happened(doing: Doing) {
  if (doing.kind === 'way_chosen') {
    choosing.value = false
    preview.value = null
  }
  void send(doing)
}

function chooseAgain(on: boolean) {
  choosing.value = on
  if (!on) preview.value = null
}

function engineRan() {
  find.end()
  happened({ kind: 'engine_stopped' })
}

function goOn() {
  void send({ kind: 'located', seen: find.seen.value })
  find.end()
}

useKeys((k) => {
  if (k === '?') help.value = true
  else if (finding.value) return panel.value?.key(k) ?? false
  else if ((k === 'w' || k === 'W') && mayFind.value) find.begin()
  else return now.value?.key(k) ?? false
  return true
})
</script>

<template>
  <AppPage
    :title="view?.vehicle.name ?? 'Bench'"
    :sub="view?.engine.name"
    back="Board"
    bare
    lean
    :ready="view !== null"
    :trouble="trouble?.message ?? ''"
    failed="This job could not be opened."
    waiting="Opening the job…"
    @again="load"
  >
    <template #bar>
      <BenchBar
        v-if="view && state"
        :view="view"
        :may-find="mayFind && !finding"
        @do="happened"
        @find="find.begin()"
        @choose="chooseAgain(!choosing)"
        @help="help = true"
      />
    </template>
    <template #else><VBtn to="/">Back to the board</VBtn></template>

    <main v-if="view && state" class="bench d-grid fills shrinks">
      <section class="picture d-grid shrinks">
        <div class="drawing shrinks px-2 pt-2 pb-1" tabindex="0" role="region" aria-label="The head, drawn">
          <HeadDrawing
            :engine="view.engine"
            :crank="crankShown"
            :shown="finding ? find.shown(view) : valvesShown(view)"
            :notes="finding ? find.notes.value : choosing ? {} : cylinderNotes(view)"
            :pickable="finding ? 'all' : true"
            :cylinders-pickable="finding"
            :stand="stand"
            @pick="(v) => (finding ? find.tapValve(v) : happened({ kind: 'picked', valve: v }))"
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
          <VBtn v-if="state.waits_said" class="stand tall-44" variant="text" @click="happened({ kind: 'waiting' })"
            >waits for {{ state.waits_said }}: go on</VBtn
          >
          <span v-else class="quiet">limits {{ limits }}</span>
        </p>
        <div class="below d-grid shrinks">
          <div
            class="turns shrinks ps-2 pe-2 pt-1 pb-2"
            tabindex="0"
            role="region"
            aria-label="The two turns of the crank"
          >
            <TurnBand
              :engine="view.engine"
              :plan="plan"
              :crank="crankShown"
              :places="finding ? (find.found.value?.positions ?? []) : []"
              :stop="finding ? -1 : stopShown(view, preview)"
              :finished="preview ? [] : view.state.finished"
              :here="finding ? (find.found.value?.settable ?? []) : state.now.here"
              :numbered="state.plan?.school === 'sum_rule'"
              :across="400"
            />
          </div>
          <div class="aside shrinks ps-1 pe-3 pt-2 pb-2">
            <SideView v-bind="sideShown(view)" :gear="view.engine.gear.picture" :crank="crankShown" />
          </div>
        </div>
      </section>
      <FindPanel
        v-if="finding"
        ref="panel"
        class="right"
        :view="view"
        :seen="find.seen.value"
        :found="find.found.value"
        :trouble="find.trouble.value"
        :looking="find.looking.value"
        @look="(w) => (find.looking.value = w)"
        @valve="find.tapValve"
        @sign="find.tapSign"
        @mark="find.tapMark"
        @cylinder="find.tapCylinder"
        @add="find.add"
        @drop="find.drop"
        @go="goOn"
        @ran="engineRan"
        @cancel="find.end"
      />
      <NowPanel
        v-else
        ref="now"
        class="right"
        :view="view"
        :crank="crank"
        :choosing="choosing"
        :waiting="waiting"
        :refused="refused"
        :offline="offline"
        :told="told"
        :unkept="unkept"
        :refusal="refusal"
        @do="happened"
        @undo="undo"
        @keep-there="keepThere"
        @forget="forget"
        @preview="(p) => (preview = p)"
        @choosing="chooseAgain"
        @leave="(v) => (leaving = v)"
        @cross-check="reopen"
        @set-though="(v) => (settingThough = v)"
      />
    </main>
  </AppPage>
  <KeyHelp v-model="help" />
  <LeaveDialog v-model="leaving" @do="happened" />
  <ReasonDialog
    :model-value="settingThough !== ''"
    :title="`Why is ${settingThough} set though it is in?`"
    text="Disturbing a good valve is a risk. The sheet will show that it was in, and this reason."
    :usual="['To bring it to the aim', 'Nut or screw to be replaced', 'Owner wants all alike']"
    button="Slacken it with this reason"
    @update:model-value="(on) => !on && (settingThough = '')"
    @reason="(reason) => happened({ kind: 'adjusted', valve: settingThough, reason })"
  />
</template>

<style scoped>
.bench {
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  grid-template-rows: minmax(0, 1fr);
}

/* The bench fills what the header leaves, whatever that takes. */
@media (width > 1000px) {
  :global(.v-application__wrap:has(> .bench)) {
    height: 100dvh;
  }
}

.picture {
  grid-template-rows: minmax(0, 1.32fr) auto minmax(0, 1fr);
  border-right: 2px solid var(--line);
}

.drawing {
  overflow: auto;
  scrollbar-width: thin;
}

.stand {
  --v-btn-height: 44px;
  margin: -8px auto -8px 0;
}

.below {
  grid-template-columns: minmax(0, 1fr) minmax(0, 0.56fr);
  grid-template-rows: minmax(0, 1fr);
}

@media (width <= 1000px) {
  .bench {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: none;
    height: auto;
  }

  .right {
    order: -1;
  }

  .right :deep(.ladder) {
    max-height: 300px;
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

@media (width <= 1000px) and (height <= 480px) {
  .right :deep(.ladder) {
    min-height: 70px;
    max-height: 70px;
  }

  .right :deep(.heads) {
    order: 3;
  }
}

@media (width <= 480px) {
  .right :deep(.ladder) {
    max-height: 164px;
  }
}
</style>
