<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { answered, api, newID, type Schemas } from '@/shared/api/client'
import AppPage from '@/shared/AppPage.vue'
import { ToldBar } from '@/shared/later'
import { people } from '@/shared/session'
import { day } from '@/shared/units'
import AuditPart from './AuditPart.vue'
import PersonDialog from './PersonDialog.vue'
import { roleWords } from './roleWords'

type Person = Schemas['PersonView']

const list = ref<Person[] | null>(null)
const trouble = ref('')
const said = ref('')
const editing = ref(false)
const chosen = ref<Person | null>(null)
const minutes = ref('')
const nobody = computed(() => list.value?.every((p) => p.left_at) ?? false)

async function load() {
  try {
    list.value = await answered(api.GET('/api/v1/people'))
    await people.load()
    minutes.value = String(people.session.value?.out_after_min ?? '')
    trouble.value = ''
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
onMounted(load)

function open(p: Person | null) {
  chosen.value = p
  editing.value = true
}

/** Stores somebody: anew, or as he is from now on. */
async function save(body: Schemas['PersonBody']) {
  const was = chosen.value
  if (was) await answered(api.PUT('/api/v1/people/{id}', { params: { path: { id: was.id } }, body }))
  else await answered(api.POST('/api/v1/people', { body: { ...body, id: newID() } }))
  const first = nobody.value
  editing.value = false
  said.value = `${body.name} is stored.`
  if (first)
    await people.load() // from here on somebody has to be signed in
  else await load()
}

async function saveMinutes() {
  said.value = ''
  try {
    await answered(api.PUT('/api/v1/sign-out', { body: { minutes: Number(minutes.value) } }))
    said.value = 'Saved.'
    await people.load()
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
</script>

<template>
  <AppPage
    title="People"
    back="Workshop"
    back-to="/shop"
    :ready="list !== null"
    :trouble="trouble"
    failed="Who belongs to the workshop could not be read."
    @again="load"
  >
    <template #bar>
      <VBtn variant="flat" size="small" :disabled="!list" @click="open(null)">Add somebody</VBtn>
    </template>
    <div v-if="list" class="people d-grid ga-6">
      <VAlert v-if="trouble" role="alert">{{ trouble }}</VAlert>
      <ToldBar v-if="said" v-model="said" />
      <VAlert v-if="nobody" variant="tonal" color="" role="note">
        Nobody is set up: whoever opens this program can do everything, and nothing says who did it. The first one has
        to be a foreman with a PIN or a tag; from then on everybody signs in.
        <VBtn class="mt-2" variant="flat" @click="open(null)">Set up the foreman</VBtn>
      </VAlert>
      <ul v-else class="list d-grid ga-2 ma-0 pa-0 list-none" aria-label="People">
        <li v-for="p in list" :key="p.id" :class="{ quiet: p.left_at }">
          <button
            type="button"
            class="row d-flex flex-wrap align-center gr-1 gc-5 py-2 px-4 tall-56 on-panel"
            @click="open(p)"
          >
            <b class="fs-20">{{ p.name }}</b>
            <span>{{ roleWords[p.role] }}</span>
            <span class="fills" />
            <span class="quiet">{{
              p.left_at
                ? `left on ${day(p.left_at)}`
                : p.has_pin || p.has_tag
                  ? [p.has_pin && 'PIN', p.has_tag && 'tag'].filter(Boolean).join(' and ')
                  : 'cannot sign in: no PIN, no tag'
            }}</span>
          </button>
        </li>
      </ul>
      <section v-if="!nobody" class="d-grid ga-3">
        <h2 class="fs-24">Signed out by itself</h2>
        <p class="quiet">
          After so long without a touch. What was done and is not on the disk yet stays in its tablet, with its author.
        </p>
        <div class="d-flex flex-wrap align-end ga-3">
          <VTextField v-model="minutes" class="minutes" label="After" suffix="min" inputmode="numeric" hide-details />
          <VBtn @click="saveMinutes">Save</VBtn>
        </div>
      </section>
      <AuditPart />
    </div>
    <PersonDialog v-model="editing" :person="chosen" :first="nobody" :save="save" />
  </AppPage>
</template>

<style scoped>
.people {
  max-width: 900px;
}

.row {
  width: 100%;
  border: 0;
  border-radius: 8px;
  color: inherit;
  font: inherit;
  text-align: start;
  cursor: pointer;
}

.minutes {
  max-width: 200px;
}
</style>
