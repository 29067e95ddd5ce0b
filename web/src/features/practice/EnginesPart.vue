<script setup lang="ts">
import { computed } from 'vue'
import { reads, useRead } from '@/shared/api/reads'
import EngineGlyph from '@/shared/engine/EngineGlyph.vue'
import FoldAway from '@/shared/FoldAway.vue'
import StateNote from '@/shared/StateNote.vue'
import { layoutName } from '@/shared/words'

/** Engines of the library to practise on, each with gaps that follow from chance. */
const { data: engines } = useRead(reads.engines())
const emit = defineEmits<{ begin: [of: { engine_id: string; card: number }] }>()
const offered = computed(() => (engines.value ?? []).filter((e) => !e.damaged && e.cards.length))
/** A cold card where there is one. */
const cardOf = (cards: { state: string }[]) =>
  Math.max(
    0,
    cards.findIndex((c) => c.state === 'cold'),
  )
</script>

<template>
  <section aria-label="Engines to practise on">
    <FoldAway title="On an engine of the library">
      <StateNote
        v-if="engines && !offered.length"
        title="No engine here can be practised on."
        text="Practice needs one with a screw or a shim at each valve and a clearance card."
      >
        <VBtn to="/engines/new">New engine</VBtn>
      </StateNote>
      <ul class="shelf d-grid ga-4 ma-0 pa-0 list-none">
        <li v-for="e in offered" :key="e.id">
          <button
            type="button"
            class="engine d-grid align-content-start w-100 ga-1 pa-4 edged rounded on-panel text-left"
            @click="emit('begin', { engine_id: e.id, card: cardOf(e.cards) })"
          >
            <EngineGlyph :banks="e.banks" :name="e.name" />
            <b class="fs-24 lh-tight">{{ e.name }}</b>
            <span class="quiet">{{ layoutName(e.layout, e.cylinders) }} · {{ e.valves }} valves</span>
          </button>
        </li>
      </ul>
    </FoldAway>
  </section>
</template>

<style scoped>
.shelf {
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
}

.engine {
  height: 100%;
  color: inherit;
  cursor: pointer;
}
</style>
