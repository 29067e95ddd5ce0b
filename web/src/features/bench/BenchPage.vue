<script setup lang="ts">
import AppPage from '@/shared/AppPage.vue'
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { PlanView } from '@/shared/api/client'
import BenchBar from './BenchBar.vue'
import BenchPicture from './BenchPicture.vue'
import NowPanel from './NowPanel.vue'
import { nothingOpen } from './over'
import { useFind } from './useFind'
import { useJob, type Doing } from './useJob'
import { mayByFoot, useHandsFree } from './useHandsFree'
import { usePresence } from './usePresence'
import { useDrawnCrank } from './useTurns'
import { guard } from '@/shared/guard'
import { afterPaint, isViewed, later, viewed } from '@/shared/later'
import { useKeys } from '@/shared/useKeys'

const BenchDialogs = later(() => import('./BenchDialogs.vue'))
const FindPanel = later(() => import('./panels/FindPanel.vue'))

const id = String(useRoute().params.id)
const { view, state, others, trouble, behind, line, waits, load, send, undo, reopen, answer, forget, begin } =
  useJob(id)
onMounted(load)
const { here, reached } = usePresence(id, state, others)
useHandsFree(state)
/** How long after that the bench's own judging is fetched, ms: what may be opened over it comes before. */
const afterwards = 1500
/** What is next is on the screen: the head is drawn, and what may be opened over the bench is fetched. */
const shown = ref(isViewed())
function shownFirst() {
  shown.value = true
  viewed()
  setTimeout(begin, afterwards)
  void here()
}
let begun = false
watch(
  view,
  (v) => {
    if (!v || begun) return
    begun = true // also where another page was there first
    afterPaint(shownFirst)
  },
  { immediate: true },
)

const crank = useDrawnCrank(id, state)
const find = useFind(id)
const { on: finding } = find
const crankShown = computed(() => (finding.value ? (find.found.value?.crank_deg ?? null) : crank.value))
// Where the crank stands may be asked, and doubted, in every state after the sequence is chosen.
const mayFind = computed(
  () => Boolean(state.value?.plan) && !['choose_way', 'await_hot', 'done'].includes(state.value!.phase),
)
const choosing = ref(false)
const preview = ref<PlanView | null>(null)
const over = ref(nothingOpen())
/** Whether something is asked over the bench: else its dialogs are not drawn anew with every step. */
const asks = computed(() => Object.values(over.value).some(Boolean))
const now = useTemplateRef('now')
const panel = useTemplateRef('panel')

// Said to whoever cannot see it, without drawing the panel anew.
watch(behind, (busy) => {
  const panel = (now.value as { $el?: HTMLElement } | null)?.$el
  if (busy) panel?.setAttribute('aria-busy', 'true')
  else panel?.removeAttribute('aria-busy')
})
watch(finding, guard.begin, { flush: 'sync' })

function happened(doing: Doing) {
  if (doing.kind === 'way_chosen') chooseAgain(false)
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

const byFoot = () => !finding.value && !choosing.value && Boolean(state.value && mayByFoot(state.value))
useKeys((k) => {
  if (k === '?') over.value.help = true
  else if (finding.value) return panel.value?.key(k) ?? false
  else if ((k === 'w' || k === 'W') && mayFind.value) find.begin()
  else return now.value?.key(k) ?? false
  return true
}, byFoot)
</script>

<template>
  <AppPage
    :title="view?.vehicle.name ?? 'Bench'"
    :sub="view?.engine.name"
    back="On the go"
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
        @head="over.head = true"
        @help="over.help = true"
        @play="over.playing = true"
      />
    </template>
    <template #else><VBtn to="/">Back to the board</VBtn></template>

    <main v-if="view && state" class="bench d-grid fills shrinks">
      <BenchPicture
        v-if="shown"
        :view="view"
        :crank="crankShown"
        :find="find"
        :choosing="choosing"
        :preview="preview"
        :waits="waits"
        @do="happened"
        @take="over.taking = $event"
      />
      <div v-else />
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
        :others="others"
        :crank="crank"
        :choosing="choosing"
        :line="line"
        :reached="reached"
        @do="happened"
        @undo="undo"
        @answer="answer"
        @forget="forget"
        @preview="(p) => (preview = p)"
        @choosing="chooseAgain"
        @leave="(v) => (over.leaving = v)"
        @cross-check="reopen"
        @set-though="(v) => (over.setThough = v)"
      />
    </main>
  </AppPage>
  <BenchDialogs
    v-if="shown && view"
    v-model="over"
    v-memo="[asks && view, asks && waits]"
    :view="view"
    :waits="waits"
    @do="happened"
  />
</template>

<style scoped>
/* The bench fills what the header leaves, whatever that takes. */
@media (width > 1000px) {
  :global(.fits .v-application__wrap) {
    height: 100dvh;
  }
}

/* What waits is said to who cannot see it: with a cursor of its own all that stands here would be styled anew with each step. */
.right {
  cursor: inherit;
}

.bench {
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
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
    max-height: 184px;
  }
}
</style>
