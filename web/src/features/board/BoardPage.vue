<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { answered, api, type JobShort } from '@/shared/api/client'
import StateNote from '@/shared/StateNote.vue'
import TopBar from '@/shared/TopBar.vue'
import { useQueue } from '@/shared/useQueue'
import JobStrip from './JobStrip.vue'

const jobs = ref<JobShort[] | null>(null)
const off = ref<JobShort[]>([])
const trouble = ref('')
const refused = ref('')
/** While the board is tidied a job can be taken off it, and what was taken off is shown. */
const tidying = ref(false)
const taken = ref<JobShort | null>(null)

async function load() {
  try {
    ;[jobs.value, off.value] = await Promise.all([
      answered(api.GET('/api/v1/jobs')),
      tidying.value ? answered(api.GET('/api/v1/jobs', { params: { query: { off_board: true } } })) : off.value,
    ])
    trouble.value = ''
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
// A board is never stale: it asks again by itself, and sends what waits in this browser from whichever bench.
const queue = useQueue()
async function again() {
  if (document.visibilityState !== 'visible') return
  await queue.flush(() => {})
  await load()
}
useIntervalFn(again, 5000)
onMounted(again)
const waits = (id: string) => queue.waiting.value.filter((w) => w.job === id).length

async function tidy(on: boolean) {
  tidying.value = on
  await load()
}

/** Takes a job off the board, or brings it back; nothing of it is lost either way. */
async function put(job: JobShort, on: boolean) {
  refused.value = ''
  try {
    await answered(api.PUT('/api/v1/jobs/{id}/on-board', { params: { path: { id: job.id } }, body: { on_board: on } }))
    taken.value = on ? null : job
    await load()
  } catch (e) {
    refused.value = (e as Error).message
  }
}

const going = computed(() => (jobs.value ?? []).filter((j) => j.phase !== 'done'))
const groups = computed(() => [
  { label: 'Jobs on the go', title: '', jobs: going.value },
  { label: 'Signed jobs', title: 'Signed', jobs: (jobs.value ?? []).filter((j) => j.phase === 'done') },
  ...(tidying.value
    ? [{ label: 'Taken off the board', title: 'Taken off the board', jobs: off.value, back: true }]
    : []),
])
</script>

<template>
  <TopBar title="Bay board" :sub="jobs ? `${going.length} on the go` : ''">
    <button class="mx-btn small" type="button" :aria-pressed="tidying" @click="tidy(!tidying)">
      {{ tidying ? 'Tidied' : 'Tidy' }}
    </button>
    <RouterLink class="mx-btn primary small" to="/start">Start a job</RouterLink>
  </TopBar>
  <main class="page">
    <p v-if="refused" class="mx-warn" role="alert">{{ refused }}</p>
    <p v-if="taken" class="taken" role="status">
      {{ taken.vehicle }} is off the board. Nothing of its job is lost.
      <button class="mx-btn" type="button" @click="put(taken, true)">Restore</button>
    </p>
    <StateNote v-if="trouble" tone="trouble" title="The board could not be read." :text="trouble">
      <button class="mx-btn primary" type="button" @click="load">Try again</button>
    </StateNote>
    <p v-else-if="!jobs" class="quiet" role="status">Reading the board…</p>
    <StateNote
      v-else-if="jobs.length === 0"
      title="No job is on the go."
      text="Start one: choose vehicle, clearances and feelers, and the bench leads from there."
    >
      <RouterLink class="mx-btn primary" to="/start">Start a job</RouterLink>
    </StateNote>
    <template v-if="jobs && !trouble">
      <section
        v-for="g in groups.filter((x) => x.jobs.length || x.back)"
        :key="g.label"
        class="strips"
        :class="{ below: g.title }"
        :aria-label="g.label"
      >
        <h2 v-if="g.title">{{ g.title }}</h2>
        <p v-if="g.jobs.length === 0" class="quiet">
          None. A job started by mistake can be taken off, and brought back here.
        </p>
        <div v-for="(j, i) in g.jobs" :key="j.id" class="line">
          <JobStrip :job="j" :first="!g.title && i === 0" :waits="waits(j.id)" />
          <button
            v-if="tidying"
            class="mx-btn"
            type="button"
            :aria-label="g.back ? `Restore ${j.vehicle}` : `Take ${j.vehicle} off`"
            @click="put(j, Boolean(g.back))"
          >
            {{ g.back ? 'Bring back' : 'Take off' }}
          </button>
        </div>
      </section>
    </template>
  </main>
</template>

<style scoped>
.strips {
  display: grid;
  gap: 14px;
}

.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: 12px;
}

.line > :first-child:last-child {
  grid-column: 1 / -1;
}

.taken {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  margin-bottom: 14px;
  padding: 8px 16px;
  border-left: 8px solid var(--in);
  background: var(--panel);
}

.below {
  margin-top: 30px;
}

h2 {
  color: var(--quiet);
  font-size: 21px;
}

@media (width <= 640px) {
  .line {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
