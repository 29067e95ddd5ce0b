<script setup lang="ts">
import AppPage from '@/shared/AppPage.vue'
import { useEventListener } from '@vueuse/core'
import { computed, onMounted, shallowRef, watch } from 'vue'
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router'
import { rewrite } from '@/shared/address'
import type { EngineView } from '@/shared/api/client'
import { saveFile, sheetFile } from '@/shared/api/sheets'
import { valvesAt } from '@/shared/engine/arcs'
import HeadDrawing from '@/shared/engine/HeadDrawing.vue'
import TurnBand from '@/shared/engine/TurnBand.vue'
import FaultList from '@/shared/FaultList.vue'
import SectionBanks from './SectionBanks.vue'
import SectionFigures from './SectionFigures.vue'
import SectionGear from './SectionGear.vue'
import SectionSigns from './SectionSigns.vue'
import SectionWork from './SectionWork.vue'
import SectionShape from './SectionShape.vue'
import VariantList from './VariantList.vue'
import { saidAt } from './places'
import { swapKind, useEditor } from './useEditor'

const route = useRoute()
const router = useRouter()
const id = route.name === 'engine' ? String(route.params.id) : null
const editor = useEditor(id)
const {
  sheet,
  look,
  orders,
  source,
  trouble,
  faults,
  saved,
  dirty,
  past,
  future,
  perCylinder,
  load,
  reshape,
  save,
  said,
  warned,
  undo,
  redo,
} = editor
onMounted(load)

// While the rows cannot be drawn the last drawing stays, dimmed.
const drawn = shallowRef<EngineView | null>(null)
watch(look, (l) => (drawn.value = l?.engine ?? drawn.value))
/** Where the engine was described, or corrected, for: a start, or a job that has not begun to read. */
const next = computed(() => {
  const whom = route.query.for
  if (!id || !whom || dirty.value) return null
  if (whom === 'start') return { to: `/start?engine=${id}`, says: 'Start a job with it' }
  return { to: `/jobs/${String(whom)}/start`, says: 'Take it into the job' }
})
const stale = computed(() => !look.value?.engine)
const notes = computed(() => {
  const out: Record<number, { text: string; strong: boolean }> = {}
  for (const p of look.value?.problems ?? []) {
    const at = /^firing_order\[(\d+)\]/.exec(p.location)
    const cylinder = at && sheet.value?.firing_order[Number(at[1])]
    if (cylinder) out[cylinder] = { text: 'fires twice', strong: true }
  }
  if (said('firing_order').length && sheet.value)
    for (let c = 1; c <= sheet.value.cylinders; c++)
      if (!sheet.value.firing_order.includes(c)) out[c] = { text: 'when does it fire?', strong: true }
  return out
})

/** A tap on a valve makes it the other kind. */
const swap = (name: string) =>
  sheet.value && swapKind(sheet.value, drawn.value?.valves.findIndex((v) => v.name === name) ?? -1)

async function keep() {
  const at = await save()
  if (at && id === null) await rewrite(router, { path: `/engines/${at}`, query: route.query, state: { stored: true } })
}

function download() {
  if (sheet.value)
    saveFile(sheetFile(sheet.value.name), JSON.stringify(sheet.value, null, 2) + '\n', 'application/json')
}

function keys(e: KeyboardEvent) {
  if (!(e.ctrlKey || e.metaKey)) return
  const k = e.key.toLowerCase()
  const typing = (e.target as HTMLElement).closest('input, textarea')
  if (k === 's') void keep()
  else if (k === 'z' && !typing) (e.shiftKey ? redo : undo)()
  else return
  e.preventDefault()
}
useEventListener('keydown', keys)
onBeforeRouteLeave((to) => {
  if (dirty.value && past.value.length && !(id === null && to.name === 'engine'))
    return globalThis.confirm('This sheet has changes that are not saved. Leave without them?')
})
</script>

<template>
  <AppPage
    :title="sheet?.name || 'New engine'"
    :sub="dirty ? 'not stored yet' : ''"
    back="Engines"
    back-to="/engines"
    stays
    bare
    :ready="sheet !== null"
    :trouble="trouble"
    failed="This engine could not be opened."
    waiting="Opening the sheet…"
    @again="load"
  >
    <template #bar>
      <template v-if="sheet">
        <VBtn size="small" :disabled="!past.length" @click="undo">Undo</VBtn>
        <VBtn size="small" :disabled="!future.length" @click="redo">Redo</VBtn>
        <VBtn size="small" @click="download">Export</VBtn>
        <VBtn v-if="id" size="small" :to="`/engines/${id}/ways`">Sequences</VBtn>
        <VBtn v-if="next" size="small" :to="next.to">{{ next.says }}</VBtn>
        <VBtn variant="flat" size="small" :disabled="!look?.ok || !dirty" @click="keep"> Save <kbd>Ctrl+S</kbd> </VBtn>
      </template>
    </template>
    <main v-if="sheet" class="editor d-grid">
      <section class="picture d-flex flex-column ga-2 py-3 px-4">
        <div v-if="drawn" class="drawing shrinks" :class="{ stale }" tabindex="0" aria-label="The head, drawn">
          <HeadDrawing
            :engine="drawn"
            :crank="null"
            :shown="valvesAt(drawn, null)"
            :notes="notes"
            pickable
            bare
            @pick="swap"
          />
        </div>
        <VAlert v-if="stale" role="note">These rows cannot be drawn yet.</VAlert>
        <div v-if="drawn && look?.ok" class="band shrinks fills">
          <TurnBand :engine="drawn" :plan="null" :crank="null" :stop="-1" :finished="[]" :here="[]" />
        </div>
        <div class="state lh-easy fs-16" role="status">
          <p v-if="look?.ok" class="sound is-in fs-20 font-weight-bold">This sheet is sound.</p>
          <p v-else-if="look" class="is-tight fs-20 font-weight-bold">{{ look.problems.length }} to put right:</p>
          <ul v-if="look && !look.ok" class="my-1 mx-0 ps-5">
            <li v-for="p in look.problems.slice(0, 4)" :key="p.location + p.message">{{ saidAt(p) }}</li>
          </ul>
          <p v-for="a in look?.ok ? look.assumed : []" :key="a" class="quiet">Assumed: {{ a }}</p>
        </div>
      </section>
      <form class="form d-grid ga-7 align-content-start px-5 pt-4 pb-15" @submit.prevent>
        <div class="told on-ground">
          <FaultList v-if="trouble" :title="trouble" :faults="faults" after="Nothing was saved." />
          <p v-if="saved" class="saved py-2 px-4 on-panel" role="status">{{ saved }}</p>
        </div>
        <SectionShape
          v-model="sheet"
          :per-cylinder="perCylinder"
          :orders="orders"
          :source="source"
          :said="said"
          :warned="warned"
          @reshape="reshape"
        />
        <SectionBanks v-model="sheet" :said="said" :warned="warned" />
        <SectionGear v-model="sheet" :said="said" :warned="warned" :valve="stale ? undefined : drawn?.valves[0]" />
        <SectionSigns v-model="sheet" :said="said" />
        <VariantList v-model="sheet" :said="said" />
        <SectionWork v-model="sheet" :said="said" :warned="warned" />
        <SectionFigures v-model="sheet" :said="said" :warned="warned" />
      </form>
    </main>
  </AppPage>
</template>

<style scoped>
.editor {
  grid-template-columns: minmax(0, 11fr) minmax(0, 9fr);
}

.picture {
  position: sticky;
  top: 62px;
  height: calc(100dvh - 62px);
  min-height: 560px;
  border-right: 2px solid var(--line);
}

.drawing {
  flex: 1.6;
  overflow: auto;
}

.stale {
  opacity: 0.35;
}

.form > :deep(section) {
  display: grid;
  gap: 12px;
}

.form :deep(h2) {
  font-size: 24px;
}

/* What the program says of storing is in view wherever the form was left. */
.told {
  position: sticky;
  top: 66px;
  z-index: 4;
}

.saved {
  border-left: 8px solid var(--in);
}

@media (width <= 1000px) {
  .editor {
    grid-template-columns: minmax(0, 1fr);
  }

  .picture {
    position: static;
    display: block;
    height: auto;
    min-height: 0;
    border-right: 0;
  }

  .drawing :deep(svg) {
    min-width: max(520px, var(--least-width, 0px));
    height: auto;
  }

  .band {
    display: none;
  }
}
</style>
