<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, useTemplateRef } from 'vue'
import { useRoute } from 'vue-router'
import { answered, api, newID, type Schemas } from '@/shared/api/client'
import AppPage from '@/shared/AppPage.vue'
import HeadDrawing from '@/shared/engine/HeadDrawing.vue'
import { reads, useRead } from '@/shared/api/reads'
import { useKeys } from '@/shared/useKeys'
import { day } from '@/shared/units'
import LeafSlide from './LeafSlide.vue'
import { untold } from './untold'

/** Questions of a minute: asked, answered, and asked again the sooner the less they were known. */
const { data: items, again } = useRead(reads.drills())
const question = shallowRef<Schemas['DrillQuestion'] | null>(null)
const answer = shallowRef<Schemas['DrillAnswered'] | null>(null)
const trouble = ref('')
const busy = ref(false)
/** What the handbook’s page asks for; empty: what is due first. */
const only = ref(String(useRoute().query.item ?? ''))
const slider = useTemplateRef('slider')

async function ask() {
  if (busy.value) return
  busy.value = true
  try {
    question.value = await answered(
      api.POST('/api/v1/drills', { body: { id: newID(), item: only.value || undefined } }),
    )
    answer.value = null
    trouble.value = ''
  } catch (e) {
    trouble.value = (e as Error).message
  }
  busy.value = false
}
onMounted(ask)
function askOnly(item: string) {
  only.value = only.value === item ? '' : item
  void ask()
}
async function choose(choice: number) {
  if (!question.value || answer.value || busy.value) return
  busy.value = true
  try {
    const params = { path: { id: question.value.id } }
    answer.value = await answered(api.POST('/api/v1/drills/{id}/answer', { params, body: { choice } }))
    again()
  } catch (e) {
    trouble.value = (e as Error).message
  }
  busy.value = false
}
const slide = () => slider.value?.go(question.value?.pull ?? 0)
const shown = computed(() =>
  untold(question.value?.drawn?.valves ?? [], ({ name }) => ({ name, chosen: name === question.value?.valve })),
)
const stands = (i: Schemas['DrillView']) =>
  !i.asked
    ? 'not asked yet'
    : `${i.right} of ${i.asked}, ${new Date(i.due!) <= new Date() ? 'due' : `again ${day(i.due!)}`}`
useKeys((k) => {
  const at = Number(k) - 1
  if (answer.value && (k === 'Enter' || k === 'n')) void ask()
  else if (k === 'l' && question.value?.pull !== undefined) slide()
  else if (question.value?.choices[at] !== undefined) void choose(at)
  else return false
  return true
})
</script>

<template>
  <AppPage
    title="Drills"
    back="Practice"
    back-to="/practice"
    :ready="question !== null || trouble !== ''"
    :trouble="question ? '' : trouble"
    failed="No question could be asked."
    @again="ask"
  >
    <div v-if="question" class="drill d-grid ga-6">
      <section class="d-grid ga-4 align-content-start" aria-label="Question">
        <span class="quiet">{{ question.title }}{{ question.drawn ? ` · ${question.drawn.name}` : '' }}</span>
        <h2 class="fs-34 lh-tight">{{ question.says }}</h2>
        <VAlert v-if="trouble" role="alert">{{ trouble }}</VAlert>
        <div v-if="question.drawn" class="drawn">
          <HeadDrawing :engine="question.drawn" :crank="question.crank_deg ?? null" :shown="shown" bare />
        </div>
        <div v-if="question.pull !== undefined" class="d-grid ga-2">
          <LeafSlide :key="question.id" ref="slider" />
          <VBtn @click="slide">Slide the leaf in</VBtn>
        </div>
        <div class="choices d-grid ga-2" role="group" aria-label="Answers">
          <VBtn
            v-for="(c, i) in question.choices"
            :key="c"
            size="large"
            class="choice"
            :class="{ right: answer?.answer === i, wrong: answer && !answer.right && answer.choice === i }"
            :disabled="answer !== null && answer.answer !== i && answer.choice !== i"
            @click="choose(i)"
            ><kbd class="me-2">{{ i + 1 }}</kbd
            >{{ c }}</VBtn
          >
        </div>
        <div v-if="answer" class="d-grid ga-3" role="status">
          <p class="fs-24">
            <b>{{ answer.right ? 'Right.' : 'No.' }}</b> {{ answer.why }}
          </p>
          <VBtn variant="flat" size="large" @click="ask">Next question</VBtn>
        </div>
      </section>
      <section class="d-grid ga-2 align-content-start" aria-label="How you stand">
        <h2 class="fs-24">How you stand</h2>
        <button
          v-for="i in items ?? []"
          :key="i.item"
          type="button"
          class="item d-grid px-4 py-2 edged rounded on-panel text-left"
          :class="{ 'bar-brass': only === i.item }"
          :aria-pressed="only === i.item"
          @click="askOnly(i.item)"
        >
          <b>{{ i.title }}</b><span class="quiet">{{ stands(i) }}</span>
        </button>
        <p class="quiet">
          What was missed is asked again the same day, what is known after 1, then 6 days, then by how easily it comes
          (SM-2, 1990). Tap one to be asked it alone.
        </p>
      </section>
    </div>
  </AppPage>
</template>

<style scoped>
.drill {
  grid-template-columns: minmax(0, 2fr) minmax(0, 1fr);
}

.drawn {
  height: 300px;
}

.choices {
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
}

.choice {
  justify-content: start;
  white-space: normal;
}

.right {
  border: 3px solid var(--in);
}

.wrong {
  border: 3px dashed var(--tight);
}

.item {
  color: inherit;
  cursor: pointer;
}

@media (width <= 900px) {
  .drill {
    grid-template-columns: minmax(0, 1fr);
  }

  .drawn {
    height: 200px;
  }
}
</style>
