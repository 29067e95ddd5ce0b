<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { people } from '@/shared/session'
import { day, mm } from '@/shared/units'

/** What a study with real leaves came to: each reader, what people and sets bring to it, and whether somebody goes by his figure. */
defineProps<{ study: Schemas['GaugeStudyView']; busy: boolean }>()
const emit = defineEmits<{ agree: [body: { reader: string; agreed_by: string; back?: boolean }] }>()
const microns = (value: number) => `${Math.round(value * 1000)} µm`
const who = ref(people.me.value)
const effects: Record<string, string> = {
  people: 'Between people',
  sets: 'Between leaf sets',
  both: 'A person with a set',
  repeatability: 'One person, one set, again',
}
const off = (bias: number) =>
  Math.abs(bias) < 0.0005
    ? 'reads as the gap is, in the mean'
    : `takes a leaf ${microns(Math.abs(bias))} ${bias > 0 ? 'thicker' : 'thinner'} than the gap, in the mean`
const chance = (p: number) => (p < 0.001 ? 'under 0.001' : p.toFixed(3))
</script>

<template>
  <section class="d-grid ga-4" aria-label="What it came to">
    <p class="quiet">
      {{ day(study.made) }}: gaps of {{ study.came!.gaps.map((g) => mm(g.gap_mm)).join(', ') }} mm, set and measured by
      {{ study.measured_by }} with a {{ study.with === 'dial' ? 'dial indicator' : 'micrometer' }};
      {{ study.leaves_are }} leaves, {{ study.sets.join(', ') }}.
    </p>
    <article v-for="r in study.came!.readers" :key="r.name" class="d-grid ga-2 pa-4 on-panel bar-brass">
      <h2 class="fs-30 lh-tight">{{ r.name }} {{ off(r.bias_mm) }}.</h2>
      <p class="fs-20">
        The differences of {{ r.readings }} readings lie {{ microns(r.apart_mm) }} apart (one standard deviation).
        Figure for real jobs: <b class="figure">± {{ r.feel_mm.toFixed(3) }} mm</b>.
      </p>
      <p v-if="r.agreed_at" class="fs-20">
        Goes by it in real jobs since {{ day(r.agreed_at) }}, agreed by {{ r.agreed_by }}.
        <VBtn
          v-if="people.may('vouch')"
          size="small"
          :disabled="busy"
          @click="emit('agree', { reader: r.name, agreed_by: who, back: true })"
          >Take that back</VBtn
        >
      </p>
      <p v-else-if="!r.enough" class="quiet">Too few readings for a figure in real jobs: ten at least.</p>
      <div v-else-if="people.may('vouch')" class="d-flex flex-wrap ga-3 align-center">
        <VTextField
          v-if="people.session.value?.open"
          v-model="who"
          class="who"
          label="Who agrees"
          maxlength="100"
          hide-details
        />
        <VBtn :disabled="busy" @click="emit('agree', { reader: r.name, agreed_by: who })"
          >Agree: {{ r.name }} goes by ± {{ r.feel_mm.toFixed(3) }} mm in real jobs</VBtn
        >
      </div>
      <p v-else class="quiet">A tutor or a foreman may agree that it is gone by in real jobs.</p>
    </article>
    <h2 class="fs-24">What brings the differences about</h2>
    <div class="scrolls-x">
      <table class="by">
        <thead>
          <tr>
            <th>Source</th>
            <th>Standard deviation</th>
            <th>Degrees of freedom</th>
            <th>F</th>
            <th>By chance</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="e in study.came!.by.filter((x) => x.df > 0)" :key="e.what">
            <td>{{ effects[e.what] }}</td>
            <td class="figure">{{ microns(e.sd_mm) }}</td>
            <td class="figure">{{ e.df }}</td>
            <td class="figure">{{ e.f?.toFixed(2) ?? '' }}</td>
            <td class="figure">{{ e.p === undefined ? '' : chance(e.p) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="quiet">
      Analysis of variance, people and leaf sets crossed, of readings less gaps. The figure is the mean difference plus
      twice the root of spread² and the gaps’ own uncertainty², rounded up.
    </p>
  </section>
</template>

<style scoped>
.who {
  flex: 1 1 200px;
  max-width: 300px;
}

.scrolls-x {
  overflow-x: auto;
}

.by th,
.by td {
  padding: 8px 16px 8px 0;
  border-bottom: 2px solid var(--line);
  text-align: left;
}
</style>
