<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import AppPage from '@/shared/AppPage.vue'
import HeadDrawing from '@/shared/engine/HeadDrawing.vue'
import { reads, useRead } from '@/shared/api/reads'
import { useKeys } from '@/shared/useKeys'
import { mm } from '@/shared/units'
import { actSays } from './acts'
import { watchTime } from './practiceWords'
import { untold } from './untold'

/** A run that has ended, looked at act by act, with what was hidden. */
const id = String(useRoute().params.id)
const { data: acts, trouble, again } = useRead(reads.practiceActs(id))
const { data: score } = useRead(reads.practiceScore(id))
const at = ref(0)
const act = computed(() => acts.value?.[at.value])
const shown = computed(() =>
  untold(score.value?.drawn.valves ?? [], ({ name }) => ({ name, chosen: name === act.value?.valve })),
)
const go = (by: number) => (at.value = Math.min((acts.value?.length ?? 1) - 1, Math.max(0, at.value + by)))
/** The next at which something was wrong. */
function nextWrong() {
  const i = (acts.value ?? []).findIndex((a, k) => k > at.value && a.faults.length)
  if (i >= 0) at.value = i
}
const wrong = computed(() => (acts.value ?? []).filter((a) => a.faults.length).length)
useKeys((k) => {
  if (k === 'ArrowRight') go(1)
  else if (k === 'ArrowLeft') go(-1)
  else if (k === 'n') nextWrong()
  else return false
  return true
})
</script>

<template>
  <AppPage
    title="Act by act"
    :sub="score?.exercise || score?.engine"
    back="How it was"
    :back-to="`/practice/${id}/score`"
    :ready="acts !== undefined && score !== undefined"
    :trouble="trouble"
    failed="This run could not be read."
    @again="again"
  >
    <div v-if="acts && score" class="d-grid ga-4">
      <p v-if="!acts.length" class="fs-24">Nothing was done in this run.</p>
      <template v-if="act">
        <div class="d-flex flex-wrap align-center ga-3">
          <VBtn :disabled="at === 0" aria-label="The act before" @click="go(-1)">←</VBtn>
          <b class="figure fs-24">{{ at + 1 }}/{{ acts.length }}</b>
          <VBtn :disabled="at === acts.length - 1" aria-label="The act after" @click="go(1)">→</VBtn>
          <VBtn v-if="wrong" variant="flat" @click="nextWrong">Next slip ({{ wrong }})</VBtn>
        </div>
        <VSlider v-model="at" :max="acts.length - 1" :step="1" aria-label="Act" hide-details />
        <section class="d-grid ga-2" role="status" aria-label="What was done">
          <h2 class="fs-34 lh-tight">{{ watchTime(act.after_s) }} · {{ actSays(act) }}</h2>
          <p v-if="act.valve" class="fs-20">
            {{ act.valve }} truly {{ mm(act.gap_mm) }} mm then, its lobe
            <b :class="act.clear ? 'is-in' : 'is-tight'">{{ act.clear ? 'clear' : 'not clear' }}</b>.
          </p>
          <p v-for="f in act.faults" :key="f.slip" class="fs-24 is-tight" role="alert">{{ f.says }}</p>
        </section>
        <div class="drawn">
          <HeadDrawing :engine="score.drawn" :crank="act.crank_deg" :shown="shown" bare />
        </div>
      </template>
    </div>
  </AppPage>
</template>

<style scoped>
.drawn {
  height: min(46vh, 420px);
}
</style>
