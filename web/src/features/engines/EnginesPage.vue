<script setup lang="ts">
import { onMounted, ref } from 'vue'
import EngineGlyph from '@/shared/engine/EngineGlyph.vue'
import FaultList from '@/shared/FaultList.vue'
import StateNote from '@/shared/StateNote.vue'
import TopBar from '@/shared/TopBar.vue'
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
  load,
  importFile,
  duplicate,
  exportSheet,
  remove,
  putBack,
} = useEngines()
onMounted(load)
const over = ref(false)

function picked(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) void importFile(file).finally(() => (input.value = ''))
}

function dropped(event: DragEvent) {
  over.value = false
  const file = event.dataTransfer?.files[0]
  if (file) void importFile(file)
}
</script>

<template>
  <TopBar title="Engines" :sub="list ? `${list.length} in the library` : ''">
    <RouterLink class="mx-btn primary small" to="/engines/new">New engine</RouterLink>
  </TopBar>
  <main
    class="page"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="dropped"
  >
    <div class="tools">
      <VTextField v-model="search" label="Search name, layout, firing order" clearable hide-details />
      <label class="mx-btn mx-file"
        >Import a sheet<input
          type="file"
          accept=".json,application/json"
          aria-label="Import an engine sheet"
          @change="picked"
      /></label>
      <a class="mx-btn" href="/api/v1/schemas/engine" target="_blank" rel="noopener">The format’s schema</a>
    </div>
    <FaultList v-if="trouble" :title="trouble" :faults="faults" after="Nothing was saved." />
    <p v-if="said" class="said" role="status">
      {{ said }}
      <button v-if="removed" class="mx-btn small" type="button" @click="putBack">Undo</button>
    </p>
    <p v-if="!list && !trouble" class="quiet" role="status">Reading the library…</p>
    <StateNote
      v-else-if="list && list.length === 0"
      title="No engine is in the library."
      text="Make one from its layout and firing order, or import a sheet file (.engine.json)."
    >
      <RouterLink class="mx-btn primary" to="/engines/new">New engine</RouterLink>
    </StateNote>
    <StateNote
      v-else-if="list && shown.length === 0"
      title="No engine by that name."
      :text="`Nothing in the library holds “${search}”.`"
    >
      <button class="mx-btn" type="button" @click="search = ''">Show all</button>
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
          <RouterLink class="mx-btn small" :to="`/engines/${e.id}/ways`">Sequences</RouterLink>
          <button class="mx-btn small" type="button" :aria-label="`Duplicate ${e.name}`" @click="duplicate(e.id)">
            Duplicate
          </button>
          <button class="mx-btn small" type="button" :aria-label="`Export ${e.name}`" @click="exportSheet(e.id)">
            Export
          </button>
          <button class="mx-btn small" type="button" :aria-label="`Remove ${e.name}`" @click="remove(e.id)">
            Remove
          </button>
        </div>
      </li>
    </ul>
  </main>
</template>

<style scoped>
.page {
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

.said {
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 8px 16px;
  border-left: 8px solid var(--in);
  background: var(--panel);
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

.do .mx-btn {
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
