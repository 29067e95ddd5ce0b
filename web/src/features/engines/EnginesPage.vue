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
      class="shelves"
      :class="{ over }"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="dropped"
    >
      <div class="tools">
        <VTextField v-model="search" label="Search name, layout, firing order" clearable hide-details />
        <PickFile label="Import an engine sheet" accept=".json,application/json" @picked="importFile" />
        <VBtn href="/api/v1/schemas/engine" target="_blank" rel="noopener">The format’s schema</VBtn>
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
      <ul class="shelf">
        <li v-for="e in shown" :key="e.id" class="engine">
          <RouterLink class="open" :to="`/engines/${e.id}`">
            <span class="glyph"><EngineGlyph :banks="e.banks" :name="e.name" /></span>
            <b>{{ e.name }}</b>
            <span class="quiet">{{ layoutName(e.layout, e.cylinders) }} · {{ e.valves }} valves</span>
            <span class="figure order">{{ e.firing_order.join('-') }}</span>
          </RouterLink>
          <div class="do">
            <VBtn size="small" :to="`/engines/${e.id}/ways`">Sequences</VBtn>
            <VBtn size="small" :aria-label="`Duplicate ${e.name}`" @click="duplicate(e.id)"> Duplicate </VBtn>
            <VBtn size="small" :aria-label="`Export ${e.name}`" @click="exportSheet(e.id)"> Export </VBtn>
            <VBtn size="small" :aria-label="`Remove ${e.name}`" @click="remove(e.id)"> Remove </VBtn>
          </div>
        </li>
      </ul>
    </div>
  </AppPage>
</template>

<style scoped>
.shelves {
  display: grid;
  align-content: start;
  gap: 18px;
  min-height: calc(100dvh - 62px);
}

.over {
  outline: 3px dashed var(--brass);
  outline-offset: -8px;
}

.tools {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 12px;
}

.shelf {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(360px, 1fr));
  gap: 16px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.engine {
  display: grid;
  grid-template-rows: 1fr auto;
  border: 2px solid var(--line);
  border-radius: 6px;
  background: var(--panel);
}

.open {
  display: grid;
  gap: 2px 16px;
  align-content: start;
  padding: 16px 18px 10px;
  text-decoration: none;
}

.open:hover b {
  color: var(--brass);
}

.glyph {
  height: 84px;
  margin-bottom: 10px;
}

.glyph :deep(svg) {
  width: auto;
  max-width: 100%;
}

.open b {
  font-size: 24px;
  line-height: 1.2;
}

.order {
  font-size: 17px;
}

.do {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 8px 10px 12px;
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
