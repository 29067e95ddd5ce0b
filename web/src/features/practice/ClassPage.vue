<script setup lang="ts">
import { ref } from 'vue'
import { answered, api, type Schemas } from '@/shared/api/client'
import AppPage from '@/shared/AppPage.vue'
import StateNote from '@/shared/StateNote.vue'
import { reads, useRead } from '@/shared/api/reads'
import { people } from '@/shared/session'
import { day } from '@/shared/units'

/** How everybody who practises comes on; a tutor signs skills off here. */
const { data: list, trouble, again } = useRead(reads.learners())
const refusal = ref('')
type Learner = Schemas['Progress']
async function signs(p: Learner, k: Schemas['SkillView']) {
  refusal.value = ''
  const params = { path: { person: p.person, skill: k.skill } }
  try {
    await answered(api.PUT('/api/v1/learners/{person}/skills/{skill}', { params, body: { signed: !k.by } }))
    again()
  } catch (e) {
    refusal.value = (e as Error).message
  }
}
</script>

<template>
  <AppPage
    title="The class"
    back="Practice"
    back-to="/practice"
    :ready="list !== undefined"
    :trouble="trouble"
    failed="The class could not be read."
    @again="again"
  >
    <div v-if="list" class="d-grid ga-5">
      <VAlert v-if="refusal" role="alert">{{ refusal }}</VAlert>
      <StateNote
        v-if="!list.some((p) => p.name)"
        title="Nobody is set up."
        text="Once people are set up under Workshop, each has his own runs and drills, and a tutor signs skills off here."
      />
      <div><VBtn size="small" href="/api/v1/learners.csv">As a table (CSV)</VBtn></div>
      <section
        v-for="p in list"
        :key="p.person"
        class="d-grid ga-2 pa-4 edged rounded on-panel"
        :aria-label="p.name || 'Nobody set up'"
      >
        <div class="d-flex flex-wrap align-center ga-4">
          <h2 class="fs-24">{{ p.name || 'Before anybody was set up' }}</h2>
          <span class="quiet">{{ p.role }}{{ p.last ? `, last ${day(p.last)}` : '' }}</span>
        </div>
        <p>
          {{ p.runs }} {{ p.runs === 1 ? 'run' : 'runs' }}, {{ p.correct }} of {{ p.valves }} valves right,
          {{ p.clean }} with nothing to talk about; drills {{ p.right }} of {{ p.asked }}, {{ p.due }} due.
        </p>
        <div class="d-flex flex-wrap ga-2">
          <VBtn
            v-for="k in p.skills"
            :key="k.skill"
            size="small"
            :variant="k.by ? 'flat' : 'outlined'"
            :aria-pressed="k.by !== ''"
            :disabled="!p.name || p.name === people.me.value"
            :title="k.by ? `Signed by ${k.by}, ${day(k.at!)}` : 'Not signed off yet'"
            @click="signs(p, k)"
            >{{ k.title }}{{ k.by ? ` – ${k.by}` : '' }}</VBtn
          >
        </div>
      </section>
    </div>
  </AppPage>
</template>
