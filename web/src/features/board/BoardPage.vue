<script setup lang="ts">
import { computed, onMounted, onUnmounted, ref } from 'vue'
import { answered, api, type JobShort } from '@/shared/api/client'
import StateNote from '@/shared/StateNote.vue'
import TopBar from '@/shared/TopBar.vue'
import { useQueue } from '@/shared/useQueue'
import JobStrip from './JobStrip.vue'

const jobs = ref<JobShort[] | null>(null)
const trouble = ref('')

async function load() {
  try {
    jobs.value = (await answered(api.GET('/api/v1/jobs'))) ?? []
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
const timer = window.setInterval(() => void again(), 5000)
onMounted(again)
onUnmounted(() => clearInterval(timer))
const waits = (id: string) => queue.waiting.value.filter((w) => w.job === id).length

const going = computed(() => (jobs.value ?? []).filter((j) => j.phase !== 'done'))
const signed = computed(() => (jobs.value ?? []).filter((j) => j.phase === 'done'))
</script>

<template>
  <TopBar title="Bay board" :sub="jobs ? `${going.length} on the go` : ''">
    <RouterLink class="mx-btn primary small" to="/start">Start a job</RouterLink>
  </TopBar>
  <main class="page">
    <StateNote v-if="trouble" tone="trouble" title="The board could not be read." :text="trouble">
      <button class="mx-btn primary" type="button" @click="load">Try again</button>
    </StateNote>
    <p v-else-if="!jobs" class="quiet" role="status">Reading the board…</p>
    <StateNote
      v-else-if="jobs.length === 0"
      title="No job is on the go."
      text="Start one: choose the vehicle, the figures and the leaves, and the bench leads from there."
    >
      <RouterLink class="mx-btn primary" to="/start">Start a job</RouterLink>
    </StateNote>
    <template v-else>
      <section aria-label="Jobs on the go" class="strips">
        <JobStrip v-for="(j, i) in going" :key="j.id" :job="j" :first="i === 0" :waits="waits(j.id)" />
      </section>
      <section v-if="signed.length" class="strips signed" aria-label="Signed jobs">
        <h2>Signed</h2>
        <JobStrip v-for="j in signed" :key="j.id" :job="j" />
      </section>
    </template>
  </main>
</template>

<style scoped>
.strips {
  display: grid;
  gap: 14px;
}

.signed {
  margin-top: 30px;
}

h2 {
  color: var(--quiet);
  font-size: 21px;
}
</style>
