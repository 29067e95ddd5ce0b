<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import AppPage from '@/shared/AppPage.vue'
import { answered, api, newID, type Schemas } from '@/shared/api/client'
import { reads, useRead } from '@/shared/api/reads'
import PickOne from '@/shared/PickOne.vue'
import StateNote from '@/shared/StateNote.vue'
import { people } from '@/shared/session'
import { when } from '@/shared/units'
import EnginesPart from './EnginesPart.vue'
import OwnExercisesPart from './OwnExercisesPart.vue'
import { aids, aidWord, lasts } from './practiceWords'

/** Learning it before touching a real one: drills of a minute, exercises, and engines of the library with gaps that are hidden. */
const { data: runs, trouble, again } = useRead(reads.practice())
const { data: exercises, again: exercisesAgain } = useRead(reads.exercises())
const { data: mine } = useRead(reads.progress())
const router = useRouter()
const refusal = ref('')
const busy = ref(false)
const aid = ref<'' | 'guided' | 'watched' | 'examination'>('')
const options = [{ value: '' as const, title: 'As each says' }, ...aids]
const open = computed(() => (runs.value ?? []).filter((r) => !r.ended))
const ended = computed(() => (runs.value ?? []).filter((r) => r.ended))
const signed = computed(() => (mine.value?.skills ?? []).filter((k) => k.by))

async function begin(of: Pick<Schemas['NewPractice'], 'engine_id' | 'card' | 'exercise_id'>) {
  if (busy.value) return
  busy.value = true
  refusal.value = ''
  const id = newID()
  try {
    await answered(api.POST('/api/v1/practice', { body: { id, ...of, aid: aid.value || undefined } }))
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
      <div class="d-flex flex-wrap align-center ga-4">
        <VBtn variant="flat" size="large" to="/practice/drills">{{
          mine?.due ? `Drills of a minute: ${mine.due} due` : 'Drills of a minute'
        }}</VBtn>
        <VBtn size="large" to="/handbook">The handbook</VBtn>
        <VBtn size="large" to="/practice/feel">Your feel, measured</VBtn>
        <VBtn v-if="people.may('vouch')" size="large" to="/practice/class">The class</VBtn>
        <span v-if="signed.length" class="fs-20"
          >Signed off: {{ signed.map((k) => k.title.toLowerCase()).join(', ') }}.</span
        >
      </div>
      <VAlert v-if="refusal" role="alert">{{ refusal }}</VAlert>
      <section v-if="open.length" class="d-grid ga-2" aria-label="Runs that go on">
        <RouterLink
          v-for="r in open"
          :key="r.id"
          class="d-flex flex-wrap align-center ga-4 tall-56 py-2 px-4 edged rounded on-panel text-decoration-none bar-brass"
          :to="`/practice/${r.id}`"
        >
          <b class="fs-20">{{ r.exercise || r.engine }}</b>
          <span class="quiet">{{ r.name ? `${r.name}, ` : '' }}{{ when(r.began) }}, {{ aidWord[r.aid] }}</span>
          <span class="fills" />
          <b class="brass fs-20">go on</b>
        </RouterLink>
      </section>
      <section v-if="people.may('work')" class="d-grid ga-3" aria-label="Exercises">
        <h2 class="fs-24">Exercises</h2>
        <PickOne v-model="aid" label="How much is told" :options="options" small />
        <ul class="shelf d-grid ga-3 ma-0 pa-0 list-none">
          <li v-for="x in exercises ?? []" :key="x.id">
            <button
              type="button"
              class="exercise d-grid align-content-start w-100 ga-1 pa-4 edged rounded on-panel text-left"
              @click="begin({ exercise_id: x.id })"
            >
              <b class="fs-24 lh-tight">{{ x.name }}</b>
              <span>{{ x.says }}</span>
              <span class="quiet">{{ x.engine }} · {{ x.valves }} valves · {{ lasts(x, aid) }}</span>
            </button>
          </li>
        </ul>
      </section>
      <EnginesPart v-if="people.may('work')" @begin="begin" />
      <OwnExercisesPart v-if="people.may('vouch')" :exercises="exercises ?? []" @changed="exercisesAgain" />
      <section v-if="ended.length" class="d-grid ga-2" aria-label="Runs">
        <h2 class="fs-24">Runs that have ended</h2>
        <RouterLink
          v-for="r in ended"
          :key="r.id"
          class="d-flex flex-wrap align-center ga-4 tall-56 py-2 px-4 edged rounded on-panel text-decoration-none"
          :to="`/practice/${r.id}/score`"
        >
          <b class="fs-20">{{ r.exercise || r.engine }}</b>
          <span class="quiet">{{ r.name ? `${r.name}, ` : '' }}{{ when(r.began) }}, {{ aidWord[r.aid] }}</span>
          <span class="fills" />
          <b class="fs-20"
            >{{ r.correct }} of {{ r.valves }} right{{ r.faults ? `, ${r.faults} to talk about` : '' }}</b
          >
        </RouterLink>
      </section>
      <StateNote
        v-else-if="!open.length"
        title="No run yet."
        text="An engine with hidden gaps, some right and some not: turn its crank, slide leaves in, set what is out. At the end you are told valve by valve what was right. Nothing of it comes into the workshop’s jobs."
      />
    </div>
  </AppPage>
</template>

<style scoped>
.shelf {
  grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
}

.exercise {
  height: 100%;
  color: inherit;
  cursor: pointer;
}
</style>
