<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import AppPage from '@/shared/AppPage.vue'
import type { Schemas } from '@/shared/api/client'
import { reads, useRead } from '@/shared/api/reads'
import { degrees, mm, when } from '@/shared/units'
import { capital, verdictWord } from '@/shared/words'
import HeadDrawing from '@/shared/engine/HeadDrawing.vue'
import WhyLink from '@/shared/WhyLink.vue'
import GapLine from './GapLine.vue'
import { heldShown, trulyShown, wearWord } from './scored'

/** What a run came to, as a good mechanic would say it, with what was hidden beside what was believed. */
const id = String(useRoute().params.id)
const { data: score, trouble, again } = useRead(reads.practiceScore(id))
const took = computed(() => {
  const s = Math.round(score.value?.took_s ?? 0)
  return s < 60 ? `${s} s` : `${Math.floor(s / 60)} min ${String(s % 60).padStart(2, '0')} s`
})
/** What was said of each valve, those that were never read in one sentence. */
const says = computed(() => {
  const faults = score.value?.faults ?? []
  const unread = faults.filter((f) => f.slip === 'forgotten')
  const rest = faults.filter((f) => f.slip !== 'forgotten' || unread.length === 1).map((f) => f.says)
  return unread.length > 1 ? [...rest, `${unread.map((f) => f.valve).join(', ')} were never read.`] : rest
})
/** The same for all valves of a kind, so that their lines can be compared. */
const range = computed(() => {
  const all = (score.value?.valves ?? []).flatMap((v) => [v.found_mm, v.left_mm, v.lower_mm, v.upper_mm])
  return { from: Math.min(...all) - 0.02, to: Math.max(...all) + 0.02 }
})
/** What was the matter with a valve besides its gap. */
const troubles = (v: Schemas['PracticeResult']) =>
  [
    v.worn && v.worn !== 'even' ? wearWord[v.worn] : '',
    v.dip_mm ? `runs ${mm(v.left_mm + v.dip_mm)}` : '',
    v.nut ? `nut ${v.nut}` : '',
    v.left ? `left: ${v.left}` : '',
  ]
    .filter(Boolean)
    .map((t) => `, ${t}`)
    .join('')
</script>

<template>
  <AppPage
    title="How it was"
    :sub="score?.engine"
    back="Practice"
    back-to="/practice"
    :ready="score !== undefined"
    :trouble="trouble"
    failed="This score could not be read."
    @again="again"
  >
    <div v-if="score" class="score d-grid ga-6">
      <section class="d-grid ga-2">
        <h2 class="fs-34 lh-tight">{{ score.correct }} of {{ score.valves.length }} valves ended right.</h2>
        <p class="quiet fs-20">
          {{ took }}, the crank turned {{ degrees(score.turn_deg) }}, {{ score.leaves }}
          {{ score.leaves === 1 ? 'leaf' : 'leaves' }} picked up{{
            score.signed || score.aid !== 'guided' ? '' : ', not signed'
          }}. {{ capital(score.name ? `${score.name}, ${when(score.ended)}` : when(score.ended)) }}.
        </p>
        <p v-if="score.note_was" class="fs-20">The note on the engine, “{{ score.note_was }}”, was not so.</p>
        <p v-if="score.best" class="fs-20">
          As it is rehearsed ({{ score.best.title.toLowerCase() }}): {{ degrees(score.best.turn_deg) }} and
          {{ score.best.leaves }} leaves.
        </p>
      </section>
      <section class="d-grid ga-2" aria-label="What to talk about">
        <h2 class="fs-24">
          {{ score.faults.length ? 'What a good mechanic would say' : 'Nothing to hold against it.' }}
          <WhyLink v-if="score.faults.length" page="wrong" :at="score.faults[0]!.slip">How it shows</WhyLink>
        </h2>
        <ol class="ma-0 ps-6 fs-20">
          <li v-for="(f, i) in says" :key="i">{{ f }}</li>
        </ol>
      </section>
      <section class="heads d-grid ga-4" aria-label="The engine">
        <div class="d-grid ga-1">
          <h2 class="fs-24">As it truly is</h2>
          <div class="head"><HeadDrawing :engine="score.drawn" :crank="null" :shown="trulyShown(score.valves)" /></div>
        </div>
        <div class="d-grid ga-1">
          <h2 class="fs-24">As you held it to be</h2>
          <div class="head"><HeadDrawing :engine="score.drawn" :crank="null" :shown="heldShown(score.valves)" /></div>
        </div>
      </section>
      <section class="d-grid ga-2" aria-label="Valve by valve">
        <h2 class="fs-24">Valve by valve</h2>
        <p class="quiet">
          The bar is the window. <b class="hollow">○</b> as it truly was, <b>●</b> as it truly is,
          <b class="brass">|</b> what you believed.
        </p>
        <div v-for="v in score.valves" :key="v.valve" class="valve d-grid align-center gc-4 py-1 line-below">
          <b class="figure fs-24">{{ v.valve }}</b>
          <GapLine :result="v" :from="range.from" :to="range.to" />
          <span>
            <b :class="v.truly === 'in' ? 'is-in' : 'is-tight'">{{ verdictWord[v.truly] }}</b>
            <span class="quiet"> truly {{ mm(v.left_mm) }}{{ troubles(v) }}</span>
          </span>
          <span class="quiet"
            >believed
            {{
              v.believed_mm === null
                ? v.verdict
                  ? verdictWord[v.verdict as 'in'].toLowerCase()
                  : 'nothing'
                : mm(v.believed_mm)
            }}{{ v.disturbed ? ', set' : '' }}</span
          >
        </div>
      </section>
      <div class="d-flex flex-wrap ga-3">
        <VBtn variant="flat" size="large" to="/practice">Practise again</VBtn>
        <VBtn size="large" :to="`/practice/${id}/acts`">Act by act</VBtn>
      </div>
    </div>
  </AppPage>
</template>

<style scoped>
.score {
  max-width: 1000px;
}

.heads {
  grid-template-columns: repeat(2, minmax(0, 1fr));
}

.head {
  height: 240px;
}

.valve {
  grid-template-columns: 60px minmax(0, 2fr) minmax(0, 1.2fr) minmax(0, 1.2fr);
}

@media (width <= 640px) {
  .heads {
    grid-template-columns: minmax(0, 1fr);
  }

  .valve {
    grid-template-columns: 50px minmax(0, 1fr);
  }

  .valve > span {
    grid-column: 2;
  }
}
</style>
