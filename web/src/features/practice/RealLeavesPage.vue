<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { answered, api, Refused, type Schemas } from '@/shared/api/client'
import AppPage from '@/shared/AppPage.vue'
import { reads, useRead } from '@/shared/api/reads'
import FaultList from '@/shared/FaultList.vue'
import { day } from '@/shared/units'
import RealStudyCame from './RealStudyCame.vue'
import RealStudyForm from './RealStudyForm.vue'
import RealStudyRead from './RealStudyRead.vue'
import StudyRow from './StudyRow.vue'

/** Gauge studies with real leaves at real gaps that somebody else has set and measured. */
const { data: studies, trouble: unread, again } = useRead(reads.gaugeStudies())
const study = shallowRef<Schemas['GaugeStudyView'] | null>(null)
const making = ref(false)
const trouble = ref('')
const faults = ref<{ location: string; message: string }[]>([])
const busy = ref(false)

/** One after the other: what stands next comes with the answer. */
async function does(ask: () => Promise<Schemas['GaugeStudyView']>) {
  if (busy.value) return
  busy.value = true
  trouble.value = ''
  faults.value = []
  try {
    study.value = await ask()
    making.value = false
    again()
  } catch (e) {
    trouble.value = (e as Error).message
    faults.value = e instanceof Refused ? e.faults : []
  }
  busy.value = false
}
const begin = (body: Schemas['NewGaugeStudy']) => does(() => answered(api.POST('/api/v1/gauge-studies', { body })))
const params = () => ({ path: { id: study.value!.id } })
const reading = (leaves_mm: number[]) =>
  does(() =>
    answered(
      api.POST('/api/v1/gauge-studies/{id}/readings', {
        params: params(),
        body: { n: study.value!.done, leaves_mm },
      }),
    ),
  )
const agree = (body: { reader: string; agreed_by: string; back?: boolean }) =>
  does(() => answered(api.PUT('/api/v1/gauge-studies/{id}/feel', { params: params(), body })))
const title = computed(() => (study.value ? `${study.value.readers.join(', ')}: ${study.value.sets.join(', ')}` : ''))
</script>

<template>
  <AppPage
    title="Your feel, with real leaves"
    :sub="title"
    back="Your feel"
    back-to="/practice/feel"
    :ready="studies !== undefined"
    :trouble="unread"
    failed="The studies could not be read."
    @again="again"
  >
    <div v-if="studies" class="real d-grid ga-6">
      <FaultList v-if="trouble" :title="trouble" :faults="faults" after="Nothing was kept." />
      <RealStudyForm v-if="making" @begin="begin" @stay="making = false" />
      <RealStudyRead v-else-if="study?.next" :key="study.done" :study="study" :busy="busy" @read="reading" />
      <RealStudyCame v-else-if="study?.came" :study="study" :busy="busy" @agree="agree" />
      <p v-else class="fs-20">
        Somebody sets one or more gaps and measures them with a micrometer or a dial, and tells nobody. Then each reads
        each gap several times with each leaf set. At the end it is told how far off each reads, how far his readings
        lie apart, and what people and sets bring to that. A tutor or a foreman may agree that somebody goes by his
        figure in real jobs.
      </p>
      <div v-if="!making && !study?.next">
        <VBtn :variant="study ? 'outlined' : 'flat'" size="large" @click="making = true">A new study…</VBtn>
      </div>
      <section v-if="studies.length && !making" class="d-grid ga-2" aria-label="Studies">
        <h2 class="fs-24">Studies</h2>
        <StudyRow
          v-for="s in studies"
          :key="s.id"
          :began="day(s.made)"
          :goes-on="s.ended ? '' : `${s.done} of ${s.readings}`"
          @open="study = s"
          >{{ s.readers.join(', ') }}, {{ s.leaves_are }} leaves</StudyRow
        >
      </section>
    </div>
  </AppPage>
</template>

<style scoped>
.real {
  max-width: 900px;
}
</style>
