<script setup lang="ts">
import { computed, ref } from 'vue'
import { newID, type Schemas } from '@/shared/api/client'
import { reads, useRead } from '@/shared/api/reads'
import { decimal, slip } from '@/shared/decimal'
import { mine } from '@/shared/mine'
import PickOne from '@/shared/PickOne.vue'
import { people } from '@/shared/session'

/** What a study with real leaves begins with. Whoever fills this in knows the gaps, and does not read. */
const emit = defineEmits<{ begin: [study: Schemas['NewGaugeStudy']]; stay: [] }>()
const { data: sets } = useRead(reads.sets())
const length = mine('length')
const gaps = ref([''])
const doubt = ref(length.bare(0.001))
const by = ref<'micrometer' | 'dial'>('micrometer')
const measuredBy = ref(people.me.value)
const leavesAre = ref<'dry' | 'oiled'>('dry')
const readers = ref([''])
const chosen = ref<string[]>([])
const times = ref(5)
const said = ref(false)

const named = computed(() => readers.value.map((r) => r.trim()).filter(Boolean))
const filled = computed(() => gaps.value.filter((g) => g.trim()))
const count = computed(() => filled.value.length * named.value.length * chosen.value.length * times.value)
const misses = computed(() => {
  const bad = [...filled.value, doubt.value].map((text) => slip(text)).find(Boolean)
  if (bad) return bad
  if (!filled.value.length) return 'Say what the gap is, as it was measured.'
  if (!measuredBy.value.trim()) return 'Say who set and measured it.'
  if (!named.value.length) return 'Say who reads.'
  return chosen.value.length ? '' : 'Choose a leaf set.'
})
function begin() {
  said.value = true
  if (misses.value) return
  const kept = (text: string) => length.kept(decimal(text)!)
  emit('begin', {
    id: newID(),
    gaps: filled.value.map((g) => ({ gap_mm: kept(g), doubt_mm: kept(doubt.value) })),
    with: by.value,
    measured_by: measuredBy.value.trim(),
    leaves_are: leavesAre.value,
    readers: named.value,
    gauge_set_ids: chosen.value,
    times: times.value,
  })
}
const tools = [
  { value: 'micrometer' as const, title: 'Micrometer' },
  { value: 'dial' as const, title: 'Dial indicator' },
]
const states = [
  { value: 'dry' as const, title: 'Dry' },
  { value: 'oiled' as const, title: 'Oiled' },
]
const letter = (i: number) => String.fromCharCode(65 + i)
</script>

<template>
  <form class="d-grid ga-5" @submit.prevent="begin">
    <section class="d-grid ga-3">
      <h2 class="fs-24">The gaps, as they were measured</h2>
      <div class="cells d-grid ga-3">
        <VTextField
          v-for="(_, i) in gaps"
          :key="i"
          v-model="gaps[i]"
          :label="`Gap ${letter(i)}`"
          :suffix="length.unit()"
          inputmode="decimal"
          hide-details
        />
        <VBtn v-if="gaps.length < 10" @click="gaps.push('')">Another gap</VBtn>
      </div>
      <div class="cells d-grid ga-3">
        <VTextField
          v-model="doubt"
          label="Known to, one standard deviation"
          :suffix="length.unit()"
          inputmode="decimal"
          hide-details
        />
        <VTextField v-model="measuredBy" label="Set and measured by" maxlength="100" hide-details />
      </div>
      <PickOne v-model="by" label="Measured with" :options="tools" small />
    </section>
    <section class="d-grid ga-3">
      <h2 class="fs-24">Who reads, none of whom knows the gaps</h2>
      <div class="cells d-grid ga-3">
        <VTextField
          v-for="(_, i) in readers"
          :key="i"
          v-model="readers[i]"
          :label="`Reader ${i + 1}`"
          maxlength="100"
          hide-details
        />
        <VBtn v-if="readers.length < 20" @click="readers.push('')">Another reader</VBtn>
      </div>
    </section>
    <section class="d-grid ga-2">
      <h2 class="fs-24">With which leaves</h2>
      <VCheckbox
        v-for="s in sets ?? []"
        :key="s.id"
        v-model="chosen"
        :value="s.id"
        :label="s.name"
        :disabled="Boolean(s.damaged)"
        hide-details
      />
      <PickOne v-model="leavesAre" label="The leaves are" :options="states" small />
      <h3 class="fs-20">Each reads each gap with each set so many times</h3>
      <PickOne
        v-model="times"
        label="Times"
        :options="[2, 3, 4, 5, 6, 8, 10].map((n) => ({ value: n, title: String(n) }))"
        small
      />
    </section>
    <VAlert v-if="said && misses" role="alert">{{ misses }}</VAlert>
    <div class="d-flex flex-wrap ga-3 align-center">
      <VBtn type="submit" variant="flat" size="large">{{ count ? `Begin: ${count} readings` : 'Begin' }}</VBtn>
      <VBtn size="large" @click="emit('stay')">Not now</VBtn>
      <span class="quiet">A figure for real jobs needs ten readings of one person.</span>
    </div>
  </form>
</template>

<style scoped>
.cells {
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  align-items: center;
}
</style>
