<script setup lang="ts">
import { smaller } from '@/shared/smaller'
import { computed, reactive, ref } from 'vue'
import { answered, api, newID, type JobView, type Schemas } from '@/shared/api/client'
import PickFile from '@/shared/PickFile.vue'
import type { Doing } from '@/features/bench/useJob'
import PickOne from '@/shared/PickOne.vue'

const props = defineProps<{ view: JobView; sealed: boolean }>()
const emit = defineEmits<{ do: [doing: Doing] }>()
type Finding = Schemas['Finding']

const findings = computed(() => props.view.state.findings)
const places = computed(() => [
  'cover',
  'gasket',
  'breather',
  'hose',
  'timing case',
  ...props.view.engine.firing_order.map((c) => `plug ${c}`).sort(),
])
const valves = computed(() => props.view.engine.valves.map((v) => v.name))
const usual = [
  'spring broken',
  'part loose',
  'worn',
  'sludge',
  'blocked',
  'corroded',
  'hard or split',
  'oil on it',
  'leaks',
]
const tests = ['no draught felt', 'rinsed, and does not run clear']
const empty = () => ({ place: '', what: '', test: '', part: '', price: '', photo: '' })
const form = reactive(empty())
/** The finding that is being changed; empty: a new one. */
const changing = ref('')
const ready = computed(() => form.place.trim() !== '' && form.what.trim() !== '')

function say(f: Omit<Finding, 'finding'>, id: string) {
  emit('do', {
    kind: 'finding',
    finding: id,
    place: f.place.trim(),
    what: f.what.trim(),
    test: f.test?.trim() || undefined,
    part: f.part?.trim() || undefined,
    price: f.price?.trim() || undefined,
    photo: f.photo || undefined,
    later: f.later || undefined,
  })
}
const trouble = ref('')
const sending = ref(false)
/** A photograph is made smaller here, and kept by the program without metadata; the finding then names it. */
async function takePhoto(file: File) {
  trouble.value = ''
  sending.value = true
  try {
    const kept = await answered(
      api.POST('/api/v1/jobs/{id}/photos', {
        params: { path: { id: props.view.state.id } },
        body: (await smaller(file)) as unknown as string,
        bodySerializer: (b) => b,
        headers: { 'Content-Type': 'image/jpeg' },
      }),
    )
    form.photo = kept.hash
  } catch (e) {
    trouble.value = (e as Error).message
  }
  sending.value = false
}
function keep(later: boolean) {
  say({ ...form, later }, changing.value || newID())
  changing.value = ''
  Object.assign(form, empty())
}
function change(f: Finding) {
  changing.value = f.finding
  Object.assign(form, empty(), {
    place: f.place,
    what: f.what,
    test: f.test ?? '',
    part: f.part ?? '',
    price: f.price ?? '',
    photo: f.photo ?? '',
  })
}
const options = (list: string[]) => list.map((value) => ({ value, title: value }))
</script>

<template>
  <section class="findings d-grid ga-3">
    <ul v-if="findings.length" class="list d-grid ga-1 ma-0 pa-0 list-none">
      <li
        v-for="f in findings"
        :key="f.finding"
        class="d-flex flex-wrap ga-2 align-center ps-4 pe-2 pt-2 pb-2 on-panel fs-20"
        :class="{ later: f.later }"
      >
        <span
          ><b>{{ f.place }}: {{ f.what }}</b
          ><small class="quiet d-block fs-15">{{ [f.test, f.part, f.price].filter(Boolean).join(' · ') }}</small></span
        >
        <a v-if="f.photo" :href="`/api/v1/photos/${f.photo}`" target="_blank"
          ><img class="d-block edged" :src="`/api/v1/photos/${f.photo}`" :alt="`${f.place}: ${f.what}`"
        /></a>
        <span class="word font-weight-bold">{{ f.later ? 'for later' : 'done' }}</span>
        <template v-if="!sealed">
          <VBtn v-if="f.later" size="small" @click="say({ ...f, later: false }, f.finding)">Done now</VBtn>
          <VBtn size="small" :aria-label="`Change ${f.place}: ${f.what}`" @click="change(f)">Change</VBtn>
        </template>
      </li>
    </ul>
    <p v-else class="quiet">Nothing noted yet: what is seen besides the clearances.</p>
    <template v-if="!sealed">
      <h3 class="fs-20">Where</h3>
      <PickOne
        v-model="form.place"
        class="chips d-flex flex-wrap ga-2"
        label="Where"
        :options="options(places)"
        small
        may-be-none
      />
      <PickOne
        v-model="form.place"
        class="chips d-flex flex-wrap ga-2"
        label="Which valve"
        :options="options(valves)"
        small
        may-be-none
      />
      <h3 class="fs-20">What</h3>
      <PickOne
        v-model="form.what"
        class="chips d-flex flex-wrap ga-2"
        label="What"
        :options="options(usual)"
        small
        may-be-none
      />
      <div class="two d-grid ga-2">
        <VTextField v-model="form.place" label="Place" maxlength="120" hide-details />
        <VTextField v-model="form.what" label="What was found" maxlength="120" hide-details />
      </div>
      <PickOne
        v-if="form.place === 'breather'"
        v-model="form.test"
        class="chips d-flex flex-wrap ga-2"
        label="Test made"
        :options="options(tests)"
        small
        may-be-none
      />
      <div class="three fits-200 d-grid ga-2">
        <VTextField v-model="form.test" label="Test made" maxlength="120" hide-details />
        <VTextField v-model="form.part" label="Part number" maxlength="120" hide-details />
        <VTextField v-model="form.price" label="Price" maxlength="120" hide-details />
      </div>
      <VAlert v-if="trouble">{{ trouble }}</VAlert>
      <div class="d-flex flex-wrap ga-3 align-center">
        <img
          v-if="form.photo"
          class="d-block edged"
          :src="`/api/v1/photos/${form.photo}`"
          alt="The photograph of this finding"
        />
        <VBtn v-if="form.photo" size="small" @click="form.photo = ''">Leave the photograph out</VBtn>
        <PickFile v-else label="Photograph" accept="image/jpeg,image/png" @picked="takePhoto" />
        <span v-if="sending" class="quiet" role="status">Keeping it…</span>
      </div>
      <div class="do">
        <VBtn variant="flat" size="large" :disabled="!ready" @click="keep(false)">Done now</VBtn>
        <VBtn size="large" :disabled="!ready" @click="keep(true)">Leave for later</VBtn>
      </div>
    </template>
  </section>
</template>

<style scoped>
.chips {
  height: auto;
}

.two,
.do {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}

.do .v-btn {
  min-height: 64px;
}

.list li {
  border-left: 6px solid var(--in);
}

.list li > span:first-child {
  flex: 1 1 240px;
}

.list .later {
  border-left: 6px dotted var(--undecided);
}

img {
  max-width: 160px;
  max-height: 120px;
}
</style>
