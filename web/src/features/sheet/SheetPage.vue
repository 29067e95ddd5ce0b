<script setup lang="ts">
import AppPage from '@/shared/AppPage.vue'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { reads, useRead } from '@/shared/api/reads'
import { figureOf } from '@/shared/engine/figure'
import HeadDrawing, { type ValveShown } from '@/shared/engine/HeadDrawing.vue'
import { handOf } from '@/shared/hand'
import ProofPart from './ProofPart.vue'
import AddDialog from './AddDialog.vue'
import DeferDialog from './DeferDialog.vue'
import SheetFacts from './SheetFacts.vue'
import SheetLists from './SheetLists.vue'
import ValveTable from './ValveTable.vue'

const id = String(useRoute().params.id)
const { data: view, trouble: unread, again: readJob } = useRead(reads.job(id))
const { data: sheet, trouble: unmade, again: readSheet } = useRead(reads.sheet(id))
const trouble = computed(() => unread.value || unmade.value)
function again() {
  readJob()
  readSheet()
}

const state = computed(() => view.value!.state)
const shown = computed<Record<string, ValveShown>>(() =>
  Object.fromEntries(
    state.value.valves.map((v) => [
      v.name,
      {
        figure: figureOf(v.last?.judgement, v.limits.in_thou),
        inThou: v.limits.in_thou,
        was: v.adjusted ? figureOf(v.as_found?.judgement, v.limits.in_thou) : '',
        void: v.last?.void,
        verdict: v.last?.judgement.verdict ?? null,
        settable: true,
        here: false,
        chosen: false,
      },
    ]),
  ),
)
const deferring = ref(false)
const adding = ref<'amended' | 'countersigned'>('amended')
const addOpen = ref(false)
const mayDefer = computed(() => !['choose_way', 'await_hot', 'done'].includes(state.value.phase))
const print = () => globalThis.print()
</script>

<template>
  <AppPage
    :title="view ? `Sheet of ${view.vehicle.name}` : 'Sheet'"
    :back="view && state.phase !== 'done' ? 'Bench' : 'On the go'"
    :back-to="view && state.phase !== 'done' ? `/jobs/${id}` : '/'"
    bare
    :ready="view !== undefined && sheet !== undefined"
    :trouble="trouble"
    failed="This sheet could not be read."
    waiting="Reading the sheet…"
    @again="again"
  >
    <template #bar>
      <VBtn v-if="view && state.plan" size="small" :to="`/jobs/${id}/card`">Windscreen card</VBtn>
      <VBtn v-if="view && mayDefer" size="small" @click="deferring = true">Put the job off…</VBtn>
      <template v-if="view && state.phase === 'done'">
        <VBtn size="small" :to="`/jobs/${id}/tag`">Tag</VBtn>
        <VBtn size="small" @click="((adding = 'amended'), (addOpen = true))">Add a correction…</VBtn>
        <VBtn v-if="!state.countersigned" size="small" @click="((adding = 'countersigned'), (addOpen = true))"
          >Countersign…</VBtn
        >
      </template>
      <VBtn v-if="view" size="small" :href="`/api/v1/jobs/${id}/report.pdf`" target="_blank">PDF</VBtn>
      <VBtn v-if="view" variant="flat" size="small" @click="print">Print</VBtn>
    </template>
    <main v-if="view && sheet" class="page sheet">
      <header class="d-flex flex-wrap align-end justify-space-between ga-3">
        <div>
          <h1 class="lh-none">{{ view.vehicle.name }}</h1>
          <p class="quiet">{{ view.vehicle.plate }}</p>
        </div>
        <p class="seal py-2 px-4 fs-20 font-weight-bold undecided" :class="{ done: sheet.signed }">{{ sheet.seal }}</p>
      </header>
      <p class="found fs-24 lh-tight">{{ sheet.found }}</p>
      <SheetFacts :facts="sheet.facts" />
      <SheetLists :lists="sheet.lists" />
      <div
        class="drawing overflow-x-auto"
        tabindex="0"
        aria-label="The head, drawn with the figures as left, and over them those as found where it was set"
      >
        <HeadDrawing :engine="view.engine" :crank="null" :shown="shown" />
      </div>
      <ValveTable :sheet="sheet" />
      <p class="files d-flex flex-wrap gr-1 gc-5">
        <a class="justify-center d-inline-flex align-center tall-44" :href="`/api/v1/jobs/${id}/report.pdf`">PDF, A4</a>
        <a
          class="justify-center d-inline-flex align-center tall-44"
          :href="`/api/v1/jobs/${id}/report.pdf?paper=letter`"
          >PDF, letter</a
        >
        <a class="justify-center d-inline-flex align-center tall-44" :href="`/api/v1/jobs/${id}/report.csv`">CSV</a>
        <a class="justify-center d-inline-flex align-center tall-44" :href="`/api/v1/jobs/${id}/report.json`">JSON</a>
      </p>
      <ProofPart v-if="sheet.proof" :proof="sheet.proof" />
      <p class="quiet foot fs-15">{{ sheet.caution }}</p>
    </main>
  </AppPage>
  <AddDialog v-if="view" v-model="addOpen" :job="id" :what="adding" @done="again" />
  <DeferDialog v-if="view && mayDefer" v-model="deferring" :job="id" :mechanic="handOf(view)" @done="again" />
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 18px;
}

h1 {
  font-size: 36px;
}

.seal {
  border: 3px dashed var(--undecided);
}

.seal.done {
  border: 3px solid var(--in);
  color: var(--in);
}

.drawing :deep(svg) {
  min-width: 640px;
  max-height: 420px;
}

.files a {
  min-width: 44px;
}

@media print {
  .files {
    display: none;
  }

  .sheet {
    gap: 8px;
    padding: 0;
    max-width: none;
  }

  .drawing :deep(svg) {
    max-height: 190px;
  }

  .found {
    font-size: 13px;
  }
}
</style>
