<script setup lang="ts">
import { useLocalStorage, useSessionStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { rewrite } from '@/shared/address'
import { Refused } from '@/shared/api/client'
import { ask } from '@/shared/api/compute'
import { reads, useRead } from '@/shared/api/reads'
import AppPage from '@/shared/AppPage.vue'
import PickOne from '@/shared/PickOne.vue'
import StateNote from '@/shared/StateNote.vue'
import SumAnswer from './SumAnswer.vue'
import SumField from './SumField.vue'
import { fieldAt, sumsWith, type Answer, type Field } from './sums'
import { inUnit, lineInUnit, Typed, type Unit, type Values } from './typed'

const route = useRoute()
const router = useRouter()
const { data: gears, trouble, again } = useRead(reads.gears())
const sums = computed(() => (gears.value ? sumsWith(gears.value) : []))
const sum = computed(() => (route.params.sum ? sums.value.find((s) => s.id === route.params.sum) : sums.value[0]))
const unit = useLocalStorage<Unit>('metronix.sums.unit', 'mm')
/** What was typed in each sum, for as long as the tab is open. */
const kept = useSessionStorage<Record<string, Values>>('metronix.sums', {})
const values = ref<Values>({})
const answer = ref<Answer | null>(null)
/** What is wrong, by field; under '' what belongs to none. */
const faults = ref<Record<string, string[]>>({})
const copied = ref('')
const fields = computed(() => sum.value?.fields.filter((f) => !f.when || f.when(values.value)) ?? [])
const units = [
  { value: 'mm' as const, title: 'mm' },
  { value: 'thou' as const, title: 'thou' },
]
const inLengths = (f: Field) => ['length', 'lengths', 'pitch'].includes(f.kind ?? '') || Boolean(f.lengths)
const hasLengths = computed(() => Boolean(sum.value?.fields.some(inLengths)))
const suffix = (f: Field) =>
  f.kind === 'pitch' ? (unit.value === 'mm' ? 'mm' : 'per inch') : f.kind === 'length' ? unit.value : f.unit
const label = (f: Field) =>
  f.kind === 'pitch' && unit.value === 'thou'
    ? 'Threads an inch'
    : f.kind === 'lengths' || f.lengths
      ? `${f.label} (${unit.value})`
      : f.label
const turned = (f: Field, text: string, to: Unit) =>
  f.lengths ? lineInUnit(text, to) : inUnit(text, f.kind ?? 'number', to)

watch(
  sum,
  (s) => {
    copied.value = ''
    answer.value = null
    if (!s) return
    const asked = Object.keys(route.query).length > 0
    if (asked && s.fields.some(inLengths)) unit.value = route.query.in === 'thou' ? 'thou' : 'mm' // an address says its unit, or means millimetres
    const before = kept.value[s.id]
    const start = (f: Field) => (unit.value === 'thou' && inLengths(f) && !asked ? turned(f, f.start, 'thou') : f.start)
    values.value = Object.fromEntries(
      s.fields.map((f) => [f.key, String((asked ? route.query[f.key] : before?.[f.key]) ?? start(f))]),
    )
  },
  { immediate: true },
)

/** The same lengths in the other unit, in every sum. */
function change(to: Unit) {
  if (to === unit.value) return
  const across = (id: string, v: Values) =>
    Object.fromEntries(
      Object.entries(v).map(([key, text]) => {
        const f = sums.value.find((s) => s.id === id)?.fields.find((x) => x.key === key)
        return [key, f && inLengths(f) ? turned(f, text, to) : text]
      }),
    )
  kept.value = Object.fromEntries(Object.entries(kept.value).map(([id, v]) => [id, across(id, v)]))
  unit.value = to
  if (sum.value) values.value = across(sum.value.id, values.value)
}

let asked = 0
let timer = 0
watch(
  values,
  () => {
    clearTimeout(timer)
    timer = window.setTimeout(() => void reckon(), 120)
  },
  { deep: true, immediate: true },
)

async function reckon() {
  const s = sum.value
  if (!s) return
  const mine = ++asked
  const v = { ...values.value }
  kept.value = { ...kept.value, [s.id]: v }
  void rewrite(router, { params: { sum: s.id }, query: { ...v, ...(hasLengths.value ? { in: unit.value } : {}) } })
  const typed = new Typed(v, unit.value)
  const request = s.request(typed)
  if (Object.keys(typed.slips).length) {
    answer.value = null
    faults.value = typed.slips
    return
  }
  try {
    const got = await ask(s.operation, request)
    if (mine !== asked) return
    answer.value = s.answer(got, typed)
    faults.value = {}
  } catch (e) {
    if (mine !== asked) return
    answer.value = null
    const list = e instanceof Refused && e.faults.length ? e.faults : [{ location: '', message: (e as Error).message }]
    const by: Record<string, string[]> = {}
    for (const f of list) {
      const { key, entry } = fieldAt(s, f.location)
      ;(by[key] ??= []).push(entry + f.message)
    }
    faults.value = by
  }
}
/** Everything that is wrong, with the name of its field. */
const all = computed(() =>
  Object.entries(faults.value).flatMap(([key, list]) => {
    const f = sum.value?.fields.find((x) => x.key === key)
    return list.map((message) => ({ at: f ? label(f) : '', message }))
  }),
)

async function share() {
  try {
    await navigator.clipboard.writeText(location.href)
    copied.value = 'Link copied.'
  } catch {
    copied.value = location.href
  }
}
</script>

<template>
  <AppPage
    title="Calculators"
    :ready="sums.length > 0"
    :trouble="trouble"
    failed="The calculators could not be opened."
    waiting="Opening the calculators…"
    @again="again"
  >
    <template #bar>
      <VBtn v-if="sum" size="small" @click="share">Copy link</VBtn>
    </template>
    <div class="sums d-grid ga-4">
      <nav class="which d-flex flex-wrap ga-2" aria-label="Calculators">
        <VBtn v-for="s in sums" :key="s.id" :class="{ on: s.id === sum?.id }" :to="`/sums/${s.id}`">{{ s.name }}</VBtn>
      </nav>
      <StateNote
        v-if="!sum"
        tone="trouble"
        :title="`There is no calculator called “${String(route.params.sum)}”.`"
        text="Choose one of those above."
      />
      <p v-if="copied" class="quiet" role="status">{{ copied }}</p>
      <section v-if="sum" class="two d-grid ga-10">
        <form class="form d-grid ga-3 align-content-start" @submit.prevent>
          <h2>{{ sum.name }}</h2>
          <p class="quiet">{{ sum.about }}</p>
          <PickOne
            v-if="hasLengths"
            :model-value="unit"
            label="Lengths in"
            :options="units"
            small
            @update:model-value="change"
          />
          <SumField
            v-for="f in fields"
            :key="`${sum.id} ${f.key}`"
            v-model="values[f.key]"
            :field="f"
            :label="label(f)"
            :suffix="suffix(f)"
            :wrong="f.key in faults"
          />
        </form>
        <SumAnswer :answer="answer" :faults="all" />
      </section>
    </div>
  </AppPage>
</template>

<style scoped>
.two {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}

@media (width <= 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 20px;
  }
}
</style>
