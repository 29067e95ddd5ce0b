<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import VerdictStrip from '@/features/bench/parts/VerdictStrip.vue'
import LeafSlide from '@/features/practice/LeafSlide.vue'
import { mm } from '@/shared/units'
import { feelWord } from '@/shared/words'
import { book } from './book'

/** One leaf in gaps from wide to narrow, slid in by hand; and what some readings come to. */
const { drag } = book
const last = drag.gaps.length - 1
const at = ref(Math.round(last / 2))
const gap = computed(() => drag.gaps[at.value]!)
const slide = useTemplateRef('slide')
const slid = ref(false)
async function go() {
  slid.value = true
  await nextTick()
  slide.value?.go(gap.value.pull)
}
watch(at, () => {
  slid.value = false
  slide.value?.out()
})
const felt = (readings: (typeof drag.verdicts)[number]['felt']) =>
  readings.map((r) => `${r.name} ${r.feel ? feelWord[r.feel] : ''}`).join(', then ')
</script>

<template>
  <section class="d-grid ga-4" aria-label="What a drag tells">
    <p class="fs-24 lh-tight">{{ drag.says }}</p>
    <div class="try d-grid ga-3 pa-4 on-panel bar-brass">
      <p class="fs-20">
        The leaf is <b class="figure">{{ drag.leaf }}</b>, the gap <b class="figure">{{ gap.gap_mm.toFixed(3) }}</b> mm.
      </p>
      <VSlider
        v-model="at"
        :min="0"
        :max="last"
        :step="1"
        hide-details
        color="primary"
        aria-label="The gap, from wide to narrow"
      />
      <LeafSlide ref="slide" />
      <div class="d-flex flex-wrap ga-3 align-center">
        <VBtn variant="flat" size="large" @click="go">Slide the leaf in</VBtn>
        <b v-if="slid" class="fs-30" role="status">{{ feelWord[gap.feel] }}</b>
      </div>
    </div>
    <h2 class="fs-24">What it comes to, limits {{ drag.limits_mm.map(mm).join(' to ') }} mm</h2>
    <article v-for="v in drag.verdicts" :id="v.judgement.verdict" :key="felt(v.felt)" class="d-grid ga-1">
      <b class="fs-20">{{ felt(v.felt) }}</b>
      <VerdictStrip :judgement="v.judgement" bare />
      <p v-if="v.says.sub" class="quiet">{{ v.says.sub }}</p>
    </article>
  </section>
</template>
