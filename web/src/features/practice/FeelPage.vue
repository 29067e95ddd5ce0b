<script setup lang="ts">
import { computed, ref, shallowRef, useTemplateRef } from 'vue'
import { answered, api, newID, type Schemas } from '@/shared/api/client'
import AppPage from '@/shared/AppPage.vue'
import { reads, useRead } from '@/shared/api/reads'
import { useKeys } from '@/shared/useKeys'
import { mm, when } from '@/shared/units'
import LeafInHand from './LeafInHand.vue'
import StudyRow from './StudyRow.vue'

/** A gauge study of one's own feel: hidden gaps, each read three times, blind and in no order. */
const { data: studies, trouble: unread, again } = useRead(reads.studies())
const study = shallowRef<Schemas['StudyView'] | null>(null)
const refusal = ref('')
const busy = ref(false)
const leaf = useTemplateRef('leaf')
const inHand = ref(0)

let last: Promise<unknown> = Promise.resolve()
/** One after the other, as hands do. */
function does<T>(ask: () => Promise<T>): Promise<T | null> {
  const next = last.then(async () => {
    busy.value = true
    refusal.value = ''
    try {
      return await ask()
    } catch (e) {
      refusal.value = (e as Error).message
      return null
    } finally {
      busy.value = false
    }
  })
  last = next
  return next
}
async function begin(id = newID()) {
  if (busy.value) return
  study.value = (await does(() => answered(api.POST('/api/v1/studies', { body: { id } })))) ?? study.value
}
async function look(id: string) {
  study.value =
    (await does(() => answered(api.GET('/api/v1/studies/{id}', { params: { path: { id } } })))) ?? study.value
}
const params = () => ({ path: { id: study.value!.id } })
async function slides(leaf_mm: number) {
  inHand.value = leaf_mm
  const felt = await does(() =>
    answered(api.POST('/api/v1/studies/{id}/slide', { params: params(), body: { leaf_mm } })),
  )
  return felt?.pull ?? null
}
async function reading() {
  if (!inHand.value || !study.value || study.value.came) return
  const body = { n: study.value.done, leaf_mm: inHand.value }
  const got = await does(() => answered(api.POST('/api/v1/studies/{id}/readings', { params: params(), body })))
  if (!got) return
  study.value = got
  inHand.value = 0
  if (got.came) again()
}
const microns = (value: number) => `${Math.round(value * 1000)} µm`
const bias = computed(() => {
  const b = study.value?.came?.bias_mm ?? 0
  return Math.abs(b) < 0.0005
    ? 'You read as the gap is, in the mean.'
    : `In the mean you take a leaf ${microns(Math.abs(b))} ${b > 0 ? 'thicker' : 'thinner'} than the gap.`
})
useKeys((k) => {
  if (k === 'l') void leaf.value?.go()
  else if (k === '+') leaf.value?.other(1)
  else if (k === '-') leaf.value?.other(-1)
  else if (k === 'Enter' && inHand.value) void reading()
  else return false
  return true
})
</script>

<template>
  <AppPage
    title="Your feel"
    back="Practice"
    back-to="/practice"
    :ready="studies !== undefined"
    :trouble="unread"
    failed="The studies could not be read."
    @again="again"
  >
    <div v-if="studies" class="feel d-grid ga-6">
      <VAlert v-if="refusal" role="alert">{{ refusal }}</VAlert>
      <section v-if="study && !study.came" class="d-grid ga-4" aria-label="The gap to read">
        <h2 class="fs-34 lh-tight">Gap {{ study.done + 1 }} of {{ study.readings }}: which leaf drags as it should?</h2>
        <LeafInHand
          :key="study.done"
          ref="leaf"
          valve="the gap"
          :advised="0.25"
          :leaves="study.leaves_mm"
          :slide="slides"
        />
        <VBtn size="large" variant="flat" :disabled="!inHand || busy" @click="reading">{{
          inHand ? `${mm(inHand)} drags as it should` : 'Slide a leaf in first'
        }}</VBtn>
        <p class="quiet keys">Keys: <kbd>+</kbd> <kbd>−</kbd> leaf, <kbd>L</kbd> slide, <kbd>Enter</kbd> this one.</p>
      </section>
      <section v-else-if="study?.came" class="d-grid ga-3" aria-label="What it came to">
        <h2 class="fs-34 lh-tight">{{ bias }}</h2>
        <p class="fs-24">
          Your readings of one gap lie {{ microns(study.came.repeat_mm) }} apart (one standard deviation).
        </p>
        <p v-for="g in study.came.gaps ?? []" :key="g.true_mm" class="fs-20">
          <b class="figure">{{ mm(g.true_mm) }}</b> truly; you read {{ g.read_mm.map(mm).join(', ') }}
        </p>
        <p class="quiet">
          Practice: simulated leaves, by the range method, five gaps three times each. A leaf’s own step of a hundredth
          is in it. No job takes these figures.
        </p>
      </section>
      <section v-else class="d-grid ga-3">
        <p class="fs-20">
          Five hidden gaps come three times each, in no order. Say of each which leaf drags as it should. At the end you
          are told how far off you read, and how far your own readings lie apart.
        </p>
      </section>
      <div v-if="!study || study.came">
        <VBtn :variant="study ? 'outlined' : 'flat'" size="large" @click="begin()">{{
          study ? 'Another study' : 'Begin'
        }}</VBtn>
        <VBtn size="large" class="ms-3" to="/practice/leaves">With real leaves</VBtn>
      </div>
      <section v-if="studies.length" class="d-grid ga-2" aria-label="Studies">
        <h2 class="fs-24">Studies</h2>
        <StudyRow
          v-for="s in studies"
          :key="s.id"
          :began="when(s.began)"
          :goes-on="s.came ? '' : `${s.done} of ${s.readings}`"
          @open="look(s.id)"
          ><template v-if="s.came"
            >off {{ microns(s.came.bias_mm) }}, apart {{ microns(s.came.repeat_mm) }}</template
          ></StudyRow
        >
      </section>
    </div>
  </AppPage>
</template>

<style scoped>
.feel {
  max-width: 760px;
}

@media (hover: none), (width <= 640px) {
  .keys {
    display: none;
  }
}
</style>
