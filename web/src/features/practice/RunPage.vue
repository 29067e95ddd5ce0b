<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import AppPage from '@/shared/AppPage.vue'
import AppDialog from '@/shared/AppDialog.vue'
import HeadDrawing from '@/shared/engine/HeadDrawing.vue'
import { useKeys } from '@/shared/useKeys'
import { cylinderNotes, valvesShown } from '@/features/bench/benchPicture'
import NowPanel from '@/features/bench/NowPanel.vue'
import CrankInHand from './CrankInHand.vue'
import LeafInHand from './LeafInHand.vue'
import ScrewInHand from './ScrewInHand.vue'
import { usePractice } from './usePractice'

/** A run on a practice engine: the same bench beside an engine that is turned, felt and set by hand. */
const id = String(useRoute().params.id)
const router = useRouter()
const { view, eyes, ended, trouble, line, load, hand, say, undo, end } = usePractice(id)
onMounted(async () => {
  await load()
  if (ended.value) await router.replace(`/practice/${id}/score`)
})

const state = computed(() => view.value!.state)
const valve = computed(() => state.value.now.valve)
/** What is seen while the crank is in the hand. */
const turning = ref<number | null>(null)
const crank = computed(() => turning.value ?? eyes.value.crank_deg)
const loose = computed(() => eyes.value.loose.includes(valve.value))
const advised = computed(() => {
  const v = state.value.valves.find((x) => x.name === valve.value)
  if (state.value.now.action === 'adjust' && v?.set_by_mm?.length === 1) return v.set_by_mm[0]!
  return v?.judgement?.try_next_mm?.[0] ?? state.value.now.ladder.find((r) => r.first)?.leaves_mm[0] ?? 0.3
})
async function slides(mm: number) {
  const got = await hand({ slide: { valve: valve.value, leaves_mm: [mm] } })
  return got?.felt?.pull ?? null
}
async function turned(byDeg: number) {
  await hand({ turn_deg: byDeg })
  turning.value = null
}

const quiet = ref(localStorage.getItem('metronix.practice-quiet') === 'yes')
function mutes() {
  quiet.value = !quiet.value
  localStorage.setItem('metronix.practice-quiet', quiet.value ? 'yes' : 'no')
}
const asks = ref(false)
async function ends() {
  asks.value = false
  if (await end()) await router.push(`/practice/${id}/score`)
}
const ways = [
  { school: 'one_cylinder', title: 'One cylinder at a time' },
  { school: 'rocking_pairs', title: 'Rocking pairs' },
  { school: 'sum_rule', title: 'Valve pairs by their sum' },
] as const
const now = useTemplateRef('now')
const leaf = useTemplateRef('leaf')
useKeys((k) => {
  if (k === 'l' || k === 'L') void leaf.value?.go()
  else if (k === '+') leaf.value?.other(0.01)
  else if (k === '-') leaf.value?.other(-0.01)
  else return now.value?.key(k) ?? false
  return true
})
</script>

<template>
  <AppPage
    title="Practice"
    :sub="view?.engine.name"
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
      <b v-if="view" class="figure fs-28" :aria-label="`${state.done} of ${state.total} valves`"
        >{{ state.done }}/{{ state.total }}</b
      >
      <VBtn size="small" :aria-pressed="!quiet" @click="mutes">{{ quiet ? 'Sound off' : 'Sound on' }}</VBtn>
      <VBtn v-if="view" size="small" :variant="state.phase === 'done' ? 'flat' : 'outlined'" @click="asks = true"
        >End the run</VBtn
      >
    </template>
    <main v-if="view" class="run d-grid fills shrinks">
      <section class="engine d-grid shrinks" aria-label="The practice engine">
        <div class="drawing shrinks px-2 pt-2 pb-1" tabindex="0" role="region" aria-label="The head, drawn">
          <HeadDrawing
            :engine="view.engine"
            :crank="crank"
            :shown="valvesShown(view)"
            :notes="cylinderNotes(view)"
            pickable
            @pick="(v) => say({ kind: 'picked', valve: v })"
          />
        </div>
        <div class="hands d-grid ga-4 pa-4">
          <CrankInHand
            :engine="view.engine"
            :crank="eyes.crank_deg"
            :firing="eyes.firing_deg"
            @shows="turning = $event"
            @turn="turned"
          />
          <LeafInHand ref="leaf" :valve="valve" :advised="advised" :slide="slides" :quiet="quiet" />
          <ScrewInHand
            :valve="valve"
            :loose="loose"
            @loosen="hand({ loosen: valve })"
            @tighten="hand({ tighten: valve })"
            @turn="(by_deg) => hand({ screw: { valve, by_deg } })"
          />
        </div>
      </section>
      <section
        v-if="state.now.action === 'choose_way'"
        class="right d-grid ga-3 pa-5 align-content-start"
        aria-label="Now"
      >
        <h2 class="fs-34 lh-tight">How do you go round it?</h2>
        <p v-if="line.refusal" role="alert">{{ line.refusal }}</p>
        <VBtn
          v-for="w in ways"
          :key="w.school"
          size="large"
          @click="say({ kind: 'way_chosen', school: w.school, round: 'set_as_you_go', check: 'none' })"
          >{{ w.title }}</VBtn
        >
        <p class="quiet">
          Some valves are right and some are not. Turn the crank, slide the leaf in, say what you felt; set what is out.
          What was hidden is told when you end the run.
        </p>
      </section>
      <NowPanel
        v-else
        ref="now"
        class="right"
        :view="view"
        :others="[]"
        :crank="state.crank_deg"
        :choosing="false"
        :line="line"
        reached
        @do="say"
        @undo="undo"
        @leave="(v) => say({ kind: 'left_as_is', valve: v, reason: 'left in practice' })"
      />
    </main>
  </AppPage>
  <AppDialog v-model="asks" title="End the run?" :width="520">
    <p>What was hidden is told then, and nothing more can be done on this engine.</p>
    <div class="d-flex flex-wrap ga-3">
      <VBtn variant="flat" @click="ends">End it and show what was right</VBtn>
      <VBtn @click="asks = false">Go on</VBtn>
    </div>
  </AppDialog>
</template>

<style scoped>
.run {
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  grid-template-rows: minmax(0, 1fr);
}

@media (width > 1000px) {
  :global(.fits .v-application__wrap) {
    height: 100dvh;
  }
}

.engine {
  grid-template-rows: minmax(0, 1fr) auto;
  border-right: 2px solid var(--line);
}

.drawing {
  overflow: auto;
  contain: strict;
}

.hands {
  grid-template-columns: repeat(3, minmax(0, 1fr));
  border-top: 2px solid var(--line);
}

@media (width <= 1000px) {
  .run {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: none;
  }

  .engine {
    grid-template-rows: 300px auto;
    border-right: 0;
  }

  /* What is next stands above what it is done to. */
  .right {
    order: -1;
  }
}

@media (width <= 640px) {
  .hands {
    grid-template-columns: minmax(0, 1fr);
  }

  .engine {
    grid-template-rows: 220px auto;
  }
}
</style>
