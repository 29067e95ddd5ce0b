<script setup lang="ts">
import { useIntervalFn, useNow } from '@vueuse/core'
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import AppPage from '@/shared/AppPage.vue'
import AppDialog from '@/shared/AppDialog.vue'
import { useKeys } from '@/shared/useKeys'
import { valvesShown } from '@/features/bench/benchPicture'
import NowPanel from '@/features/bench/NowPanel.vue'
import EngineInHand from './EngineInHand.vue'
import PaperPanel from './PaperPanel.vue'
import { watchTime } from './practiceWords'
import { quiet } from './sound'
import { claimsShown } from './paper'
import { usePractice } from './usePractice'
import WarningDialog from './WarningDialog.vue'

/** A run on a practice engine: the same bench, or a slip of paper, beside an engine that is turned, felt and set by hand. */
const id = String(useRoute().params.id)
const router = useRouter()
const { view, run, eyes, claims, trouble, refusal, warning, kicked, line, load, look, hand, say, undo, end } =
  usePractice(id)
onMounted(async () => {
  await load()
  if (run.value?.ended) await router.replace(`/practice/${id}/score`)
})

const state = computed(() => view.value!.state)
const paper = computed(() => run.value !== null && run.value.aid !== 'guided')
/** On paper whoever does it takes valves in hand himself. */
const picked = ref('')
const valve = computed(() => (paper.value ? picked.value : state.value.now.valve))
function pick(name: string) {
  if (paper.value) picked.value = name
  else void say({ kind: 'picked', valve: name })
}
const shown = computed(() =>
  paper.value ? claimsShown(view.value!, claims.value, picked.value) : valvesShown(view.value!),
)
const advised = computed(() => {
  const v = state.value.valves.find((x) => x.name === valve.value)
  if (paper.value) return v?.limits.nominal_mm ?? 0.2
  if (state.value.now.action === 'adjust' && v?.set_by_mm?.length === 1) return v.set_by_mm[0]!
  return v?.judgement?.try_next_mm?.[0] ?? state.value.now.ladder.find((r) => r.first)?.leaves_mm[0] ?? 0.3
})
const counted = computed(() =>
  paper.value ? `${claims.value.length}/${state.value.total}` : `${state.value.done}/${state.value.total}`,
)

// The thermometer on an engine that cools falls while nobody does anything.
useIntervalFn(() => {
  if (eyes.value.stopped && !document.hidden) look()
}, 15_000)

const now = useNow({ interval: 1000 })
const since = (iso: string) => Math.max(0, Math.floor((now.value.getTime() - new Date(iso).getTime()) / 1000))
/** What whoever does it may see on a watch: since when the engine stands, and how long it may take. */
const watch = computed(() => [
  ...(eyes.value.stopped ? [`stopped ${watchTime(since(eyes.value.stopped))} ago`] : []),
  ...(run.value?.minutes ? [`${watchTime(since(run.value.began))} of ${run.value.minutes} min`] : []),
])

/** The way round is chosen; that a hot engine was stopped as the run began needs no word of its own. */
async function goes(school: 'rocking_pairs') {
  const round = eyes.value.shims ? 'read_first' : 'set_as_you_go'
  const chosen = await say({ kind: 'way_chosen', school, round, check: 'none' })
  if (chosen && eyes.value.stopped) await say({ kind: 'engine_stopped' })
}

const asks = ref(false)
function ends() {
  asks.value = false
  void end(() => void router.push(`/practice/${id}/score`))
}
const bench = useTemplateRef('bench')
const slip = useTemplateRef('slip')
const engine = useTemplateRef('engine')
useKeys((k) => {
  if (k === 'e') asks.value = true
  else return engine.value?.key(k) || bench.value?.key(k) || slip.value?.key(k) || false
  return true
})
</script>

<template>
  <AppPage
    title="Practice"
    :sub="run?.exercise || view?.engine.name"
    back="Practice"
    back-to="/practice"
    bare
    :ready="view !== null"
    :trouble="trouble"
    failed="This run could not be opened."
    waiting="Opening the run…"
    @again="load"
  >
    <template #bar>
      <b v-for="w in watch" :key="w" class="figure fs-20">{{ w }}</b>
      <b v-if="view" class="figure fs-28" :aria-label="`${counted} valves`">{{ counted }}</b>
      <VBtn size="small" :aria-pressed="!quiet" @click="quiet = !quiet">{{ quiet ? 'Sound off' : 'Sound on' }}</VBtn>
      <VBtn v-if="view" size="small" :variant="state.phase === 'done' ? 'flat' : 'outlined'" @click="asks = true"
        >End the run</VBtn
      >
    </template>
    <main v-if="view && run" class="run d-grid fills shrinks" :class="{ paper }">
      <EngineInHand
        ref="engine"
        :view="view"
        :eyes="eyes"
        :valve="valve"
        :shown="shown"
        :untold="paper"
        :advised="advised"
        :leaves="run.leaves_mm"
        :hand="hand"
        @pick="pick"
      />
      <div class="right d-grid shrinks">
        <p v-if="run.left" class="left-note ma-4 mb-0 pa-3 edged rounded fs-20">
          <span class="quiet">A note hangs on the engine:</span> “{{ run.left }}”
        </p>
        <PaperPanel
          v-if="paper"
          ref="slip"
          :view="view"
          :claims="claims"
          :valve="valve"
          :refusal="refusal"
          :kicked="kicked"
          :aid="run.aid"
          :shims="Boolean(eyes.shims)"
          @claim="(claim) => hand({ claim })"
          @pick="pick"
        />
        <section
          v-else-if="state.now.action === 'choose_way'"
          class="d-grid ga-3 pa-5 align-content-start"
          aria-label="Now"
        >
          <h2 class="fs-34 lh-tight">How do you go round it?</h2>
          <p v-if="line.refusal" role="alert">{{ line.refusal }}</p>
          <VBtn v-for="w in run.ways" :key="w.school" size="large" @click="goes(w.school as 'rocking_pairs')">{{
            w.title
          }}</VBtn>
          <p class="quiet">
            {{
              run.says ||
              'Some valves are right and some are not. Turn the crank, slide the leaf in, say what you felt; set what is out.'
            }}
            What was hidden is told when you end the run.
          </p>
        </section>
        <NowPanel
          v-else
          ref="bench"
          :view="view"
          :others="[]"
          :crank="state.crank_deg"
          :choosing="false"
          :line="line"
          reached
          :practice="eyes"
          @do="say"
          @undo="undo"
          @leave="(v) => say({ kind: 'left_as_is', valve: v, reason: 'left in practice' })"
        />
      </div>
    </main>
  </AppPage>
  <AppDialog v-model="asks" title="End the run?" :width="520">
    <p>What was hidden is told then, and nothing more can be done on this engine.</p>
    <div class="d-flex flex-wrap ga-3">
      <VBtn variant="flat" @click="ends">End it and show what was right</VBtn>
      <VBtn @click="asks = false">Go on</VBtn>
    </div>
  </AppDialog>
  <WarningDialog v-model="warning" />
</template>

<style scoped>
.run {
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  grid-template-rows: minmax(0, 1fr);
}

.right {
  grid-template-rows: auto minmax(0, 1fr);
}

.right > :only-child {
  grid-row: 1 / -1;
}

@media (width > 1000px) {
  :global(.fits .v-application__wrap) {
    height: 100dvh;
  }
}

@media (width <= 1000px) {
  .run {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: none;
  }

  /* What is next stands above what it is done to. */
  .run:not(.paper) .right {
    order: -1;
  }
}
</style>
