<script setup lang="ts">
import { ref } from 'vue'
import AppPage from '@/shared/AppPage.vue'
import PickFile from '@/shared/PickFile.vue'
import EngineGlyph from '@/shared/engine/EngineGlyph.vue'
import FaultList from '@/shared/FaultList.vue'
import StateNote from '@/shared/StateNote.vue'
import { ToldBar } from '@/shared/later'
import { layoutName } from '@/shared/words'
import { useEngines } from './useEngines'

const {
  list,
  shown,
  search,
  trouble,
  faults,
  said,
  removed,
  again,
  importFile,
  duplicate,
  exportSheet,
  remove,
  putBack,
} = useEngines()
const over = ref(false)

function dropped(event: DragEvent) {
  over.value = false
  const file = event.dataTransfer?.files[0]
  if (file) void importFile(file)
}
</script>

<template>
  <AppPage
    title="Engines"
    :sub="list ? `${list.length} in the library` : ''"
    :ready="list !== undefined || trouble !== ''"
    waiting="Reading the library…"
    @again="again"
  >
    <template #bar>
      <VBtn variant="flat" size="small" to="/engines/new">New engine</VBtn>
    </template>
    <div
      class="shelves d-grid align-content-start ga-4"
      :class="{ over }"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="dropped"
    >
      <div class="tools d-grid ga-3">
        <VTextField v-model="search" label="Search" placeholder="name, layout, firing order" clearable hide-details />
        <PickFile label="Import an engine sheet" accept=".json,application/json" @picked="importFile" />
      </div>
      <FaultList v-if="trouble" :title="trouble" :faults="faults" after="Nothing was saved." />
      <ToldBar v-if="said" v-model="said" :action="removed ? 'Undo' : ''" @act="putBack" />
      <StateNote
        v-if="list && list.length === 0"
        title="No engine is in the library."
        text="Make one from its layout and firing order, or import a sheet file (.engine.json)."
      >
        <VBtn variant="flat" to="/engines/new">New engine</VBtn>
      </StateNote>
      <StateNote
        v-else-if="list && shown.length === 0"
        title="No engine by that name."
        :text="`Nothing in the library holds “${search}”.`"
      >
        <VBtn @click="search = ''">Show all</VBtn>
      </StateNote>
      <ul class="shelf d-grid ga-4 ma-0 pa-0 list-none">
        <li v-for="e in shown" :key="e.id" class="engine d-grid edged rounded on-panel">
          <RouterLink
            class="open d-grid gr-1 gc-4 align-content-start px-4 pt-4 pb-2 text-decoration-none"
            :to="`/engines/${e.id}`"
          >
            <span class="glyph mb-2"><EngineGlyph :banks="e.banks" :name="e.name" /></span>
            <b class="fs-24 lh-tight">{{ e.name }}</b>
            <span class="quiet">{{ layoutName(e.layout, e.cylinders) }} · {{ e.valves }} valves</span>
            <span class="figure order fs-16">{{ e.firing_order.join('-') }}</span>
          </RouterLink>
          <div class="do d-flex flex-wrap ga-1 px-2 pt-2 pb-3">
            <VBtn size="small" :to="`/engines/${e.id}/ways`">Sequences</VBtn>
            <VMenu :transition="false">
              <template #activator="{ props: opens }">
                <VBtn size="small" :aria-label="`More of ${e.name}`" v-bind="opens">More</VBtn>
              </template>
              <VList class="edged">
                <VListItem
                  tag="button"
                  class="w-100 text-left"
                  :title="`Duplicate ${e.name}`"
                  @click="duplicate(e.id)"
                />
                <VListItem
                  tag="button"
                  class="w-100 text-left"
                  :title="`Export ${e.name}`"
                  @click="exportSheet(e.id)"
                />
                <VListItem tag="button" class="w-100 text-left" :title="`Remove ${e.name}`" @click="remove(e.id)" />
              </VList>
            </VMenu>
          </div>
        </li>
      </ul>
    </div>
  </AppPage>
</template>

<style scoped>
.shelves {
  min-height: calc(100dvh - 62px);
}

.over {
  outline: 3px dashed var(--brass);
  outline-offset: -8px;
}

.tools {
  grid-template-columns: minmax(0, 1fr) auto auto;
}

.shelf {
  grid-template-columns: repeat(auto-fill, minmax(360px, 1fr));
}

.engine {
  grid-template-rows: 1fr auto;
}

.open:hover b {
  color: var(--brass);
}

.glyph {
  height: 84px;
}

.glyph :deep(svg) {
  width: auto;
  max-width: 100%;
}

.do .v-btn {
  flex: 1 1 auto;
  padding: 4px 8px;
  font-size: 16px;
}

@media (width <= 700px) {
  .tools {
    grid-template-columns: 1fr;
  }

  .shelf {
    grid-template-columns: 1fr;
  }
}
</style>
