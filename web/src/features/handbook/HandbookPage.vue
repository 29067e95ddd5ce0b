<script setup lang="ts">
import { computed, nextTick, watch, type Component } from 'vue'
import { useRoute } from 'vue-router'
import AppPage from '@/shared/AppPage.vue'
import AdjustersPart from './AdjustersPart.vue'
import { book, type HandbookPart } from './book'
import DragPart from './DragPart.vue'
import HeatPart from './HeatPart.vue'
import SchoolsPart from './SchoolsPart.vue'
import WrongPart from './WrongPart.vue'

/** A few pages, drawn by the parts and told by the words of the bench; each ends in its drills. */
const parts: Record<HandbookPart, Component> = {
  schools: SchoolsPart,
  drag: DragPart,
  adjusters: AdjustersPart,
  heat: HeatPart,
  wrong: WrongPart,
}
const route = useRoute()
const page = computed(() => book.pages.find((p) => p.id === route.params.page) ?? book.pages[0]!)
/** Where it was opened from; only a way within the program. */
const back = computed(() => {
  const from = String(route.query.back ?? '')
  return from.startsWith('/') && !from.startsWith('//') ? from : '/practice'
})
const says = computed(() => (back.value.startsWith('/jobs/') ? 'Bench' : 'Practice'))
const to = (id: string) => ({ path: `/handbook/${id}`, query: route.query.back ? { back: back.value } : {} })
watch(
  () => route.fullPath,
  async () => {
    await nextTick()
    const at = route.hash && document.getElementById(route.hash.slice(1))
    if (at) at.scrollIntoView({ block: 'start' })
  },
  { immediate: true, flush: 'post' },
)
</script>

<template>
  <AppPage title="Handbook" :sub="page.title" :back="says" :back-to="back">
    <div class="book d-grid ga-6">
      <nav class="one-row d-flex ga-2" aria-label="Pages of the handbook">
        <VBtn
          v-for="p in book.pages"
          :key="p.id"
          :to="to(p.id)"
          replace
          :variant="p.id === page.id ? 'flat' : 'outlined'"
          :aria-current="p.id === page.id ? 'page' : undefined"
          >{{ p.title }}</VBtn
        >
      </nav>
      <component :is="parts[page.id as HandbookPart]" :key="page.id" />
      <section class="d-flex flex-wrap ga-3 align-center pt-4 ends" aria-label="Drills of this page">
        <b class="fs-24">Now you:</b>
        <VBtn
          v-for="d in page.drills"
          :key="d.item"
          size="large"
          variant="flat"
          :to="{ path: '/practice/drills', query: { item: d.item } }"
          >{{ d.title }}</VBtn
        >
      </section>
    </div>
  </AppPage>
</template>

<style scoped>
.book {
  grid-template-columns: minmax(0, 1fr);
  max-width: 1180px;
}

/* Choices of one kind stand in a row, to be drawn along where there is no room. */
.one-row,
.book :deep(.one-row) {
  flex-wrap: nowrap;
  padding-bottom: 6px;
  overflow-x: auto;
}

.one-row > *,
.book :deep(.one-row > *) {
  flex: none;
}

@media (width > 900px) {
  .one-row,
  .book :deep(.one-row) {
    flex-wrap: wrap;
  }
}

.ends {
  border-top: 3px solid var(--brass);
}
</style>
