<script setup lang="ts">
import { computed, ref } from 'vue'
import { answered, api, type Schemas } from '@/shared/api/client'
import FoldAway from '@/shared/FoldAway.vue'
import PickFile from '@/shared/PickFile.vue'
import PickOne from '@/shared/PickOne.vue'
import { reads, useRead } from '@/shared/api/reads'
import { day } from '@/shared/units'
import { aids } from './practiceWords'

/** A tutor's own exercises: kept as files, or made of a signed job. */
const props = defineProps<{ exercises: Schemas['ExerciseShort'][] }>()
const emit = defineEmits<{ changed: [] }>()
const { data: jobs } = useRead(reads.signedJobs())
const signed = computed(() =>
  (jobs.value ?? [])
    .filter((j) => j.signed_by)
    .map((j) => ({ value: j.id, title: `${j.vehicle}, ${j.engine_name}, ${day(j.touched_at)}` })),
)
const own = computed(() => props.exercises.filter((x) => !x.ours))
const job = ref('')
const name = ref('')
const aid = ref<'guided' | 'watched' | 'examination'>('watched')
const said = ref('')
const trouble = ref('')

async function does(what: () => Promise<string>) {
  trouble.value = said.value = ''
  try {
    said.value = await what()
    emit('changed')
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
const takeIn = (file: File) =>
  does(async () => {
    const body = JSON.parse(await file.text().catch(() => '')) as Schemas['File']
    const got = await answered(api.POST('/api/v1/exercises', { body }))
    return `${got.name} is kept.`
  })
const make = () =>
  does(async () => {
    const body = { job_id: job.value, name: name.value.trim(), aid: aid.value }
    const got = await answered(api.POST('/api/v1/exercises/from-job', { body }))
    return `${got.name} is kept, with the gaps as they were found.`
  })
const remove = (x: Schemas['ExerciseShort']) =>
  does(async () => {
    await answered(api.DELETE('/api/v1/exercises/{id}', { params: { path: { id: x.id } } }))
    return `${x.name} was taken off the list. Runs on it stay.`
  })
</script>

<template>
  <section aria-label="A tutor’s exercises">
    <FoldAway title="For the tutor: exercises of your own">
      <div class="d-grid ga-4">
        <p v-if="said" role="status">{{ said }}</p>
        <VAlert v-if="trouble" role="alert">{{ trouble }}</VAlert>
        <div v-if="signed.length" class="d-grid ga-3">
          <h3 class="fs-20">Of a signed job</h3>
          <VSelect v-model="job" :items="signed" label="Job" />
          <VTextField v-model="name" label="Name of the exercise" maxlength="80" />
          <PickOne v-model="aid" label="How much is told" :options="aids" small />
          <VBtn class="justify-self-start" :disabled="!job || !name.trim()" @click="make">Make an exercise of it</VBtn>
        </div>
        <div class="d-flex flex-wrap ga-3 align-center">
          <PickFile label="Take an exercise in" accept=".json,application/json" @picked="takeIn" />
          <VBtn size="small" href="/api/v1/schemas/exercise" target="_blank" rel="noopener"
            >The format’s JSON Schema</VBtn
          >
        </div>
        <ul class="d-grid ga-2 ma-0 pa-0 list-none">
          <li v-for="x in exercises" :key="x.id" class="d-flex flex-wrap align-center ga-3">
            <b>{{ x.name }}</b><span v-if="x.by" class="quiet">{{ x.by }}</span>
            <span class="fills" />
            <VBtn size="small" :href="`/api/v1/exercises/${x.id}`" :download="`${x.id}.exercise.json`">As a file</VBtn>
            <VBtn v-if="own.includes(x)" size="small" @click="remove(x)">Take off the list</VBtn>
          </li>
        </ul>
      </div>
    </FoldAway>
  </section>
</template>
