<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import AppPage from '@/shared/AppPage.vue'
import { answered, api, newID } from '@/shared/api/client'
import { reads, useRead } from '@/shared/api/reads'
import EngineGlyph from '@/shared/engine/EngineGlyph.vue'
import StateNote from '@/shared/StateNote.vue'
import { people } from '@/shared/session'
import { layoutName } from '@/shared/words'
import { when } from '@/shared/units'

/** Learning it before touching a real one: runs on engines of the library with gaps that are hidden. */
const { data: runs, trouble, again } = useRead(reads.practice())
const { data: engines } = useRead(reads.engines())
const router = useRouter()
/** Those with something to turn, with a cold card: the others are told why when they are tapped. */
const offered = computed(() => (engines.value ?? []).filter((e) => !e.shimmed && !e.damaged && e.cards.length))
const refusal = ref('')
const busy = ref(false)

async function begin(engine: string, cards: { state: string }[]) {
  if (busy.value) return
  busy.value = true
  refusal.value = ''
  const id = newID()
  const card = Math.max(
    0,
    cards.findIndex((c) => c.state === 'cold'),
  )
  try {
    await answered(api.POST('/api/v1/practice', { body: { id, engine_id: engine, card } }))
    await router.push(`/practice/${id}`)
  } catch (e) {
    refusal.value = (e as Error).message
  }
  busy.value = false
}
</script>

<template>
  <AppPage
    title="Practice"
    :ready="runs !== undefined"
    :trouble="trouble"
    failed="The runs could not be read."
    @again="again"
  >
    <div v-if="runs" class="d-grid ga-6">
      <p class="fs-20">
        An engine with hidden gaps, some right and some not: turn its crank, slide leaves in, set what is out. At the
        end you are told valve by valve what was right. Nothing of it comes into the workshop’s jobs.
      </p>
      <VAlert v-if="refusal" role="alert">{{ refusal }}</VAlert>
      <section v-if="runs.length" class="d-grid ga-2" aria-label="Runs">
        <h2 class="fs-24">Runs</h2>
        <RouterLink
          v-for="r in runs"
          :key="r.id"
          class="d-flex flex-wrap align-center ga-4 tall-56 py-2 px-4 edged rounded on-panel text-decoration-none"
          :class="{ 'bar-brass': !r.ended }"
          :to="r.ended ? `/practice/${r.id}/score` : `/practice/${r.id}`"
        >
          <b class="fs-20">{{ r.engine }}</b>
          <span class="quiet">{{ r.name ? `${r.name}, ` : '' }}{{ when(r.began) }}</span>
          <span class="fills" />
          <b v-if="r.ended" class="fs-20"
            >{{ r.correct }} of {{ r.valves }} right{{ r.faults ? `, ${r.faults} to talk about` : '' }}</b
          >
          <b v-else class="brass fs-20">go on</b>
        </RouterLink>
      </section>
      <section v-if="people.may('work')" class="d-grid ga-3" aria-label="Engines to practise on">
        <h2 class="fs-24">Begin on</h2>
        <StateNote
          v-if="engines && !offered.length"
          title="No engine here can be practised on."
          text="Practice needs one with a screw or a nut at each valve and a cold clearance card."
        >
          <VBtn to="/engines/new">New engine</VBtn>
        </StateNote>
        <ul class="shelf d-grid ga-4 ma-0 pa-0 list-none">
          <li v-for="e in offered" :key="e.id">
            <button
              type="button"
              class="engine d-grid align-content-start w-100 ga-1 pa-4 edged rounded on-panel text-left"
              @click="begin(e.id, e.cards)"
            >
              <EngineGlyph :banks="e.banks" :name="e.name" />
              <b class="fs-24 lh-tight">{{ e.name }}</b>
              <span class="quiet">{{ layoutName(e.layout, e.cylinders) }} · {{ e.valves }} valves</span>
            </button>
          </li>
        </ul>
      </section>
    </div>
  </AppPage>
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
