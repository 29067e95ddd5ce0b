<script setup lang="ts">
import { computed, defineAsyncComponent, onMounted, ref } from 'vue'
import { answered, api, type JobShort } from '@/shared/api/client'
import { queryClient, reads, takeAhead, useRead } from '@/shared/api/reads'
import AppPage from '@/shared/AppPage.vue'
import { day } from '@/shared/units'
import { live } from '@/shared/live'
import StateNote from '@/shared/StateNote.vue'
import { afterPaint, later, ToldBar } from '@/shared/later'
import { useQueue } from '@/shared/useQueue'
import JobStrip from './JobStrip.vue'

/** While the board is tidied a job can be taken off it, and what was taken off is shown. */
const tidying = ref(false)
// A board is never stale: it asks again by itself, and sends what waits in this browser from whichever bench.
const queue = useQueue()
const {
  data: jobs,
  trouble,
  again,
} = useRead({
  ...reads.jobs(),
  initialData: takeAhead(reads.jobs()),
  staleTime: 2000, // what was read ahead is not read twice
  queryFn: async () => {
    let sent = false
    const sending = queue.flush(() => void (sent = true))
    const list = await answered(api.GET('/api/v1/jobs'))
    void sending.then(() => void (sent && queryClient.invalidateQueries({ queryKey: ['jobs'] }))) // what was sent shows
    return list
  },
  refetchInterval: () => (live.holds.value ? now : soon),
  refetchOnWindowFocus: true,
})
/** How often it asks while no events come, and while they do: what follows from the time alone changes too. */
const soon = 5000
const now = 30_000
/** What comes within so long is shown together, ms. */
const apart = 100
let comes = 0
live.on(({ all, jobs }) => {
  if (!all && jobs.every((j) => j.here)) return // who is where is not shown here
  comes ||= window.setTimeout(() => {
    comes = 0
    void queryClient.invalidateQueries({ queryKey: ['jobs'] })
  }, apart)
})
const { data: off } = useRead({ ...reads.offBoard(), enabled: tidying })
const told = ref('')
const taken = ref<JobShort | null>(null)
const waits = (id: string) => queue.waiting.value.filter((w) => w.job === id).length

/** Takes a job off the board, or brings it back; nothing of it is lost either way. */
async function put(job: JobShort, on: boolean) {
  told.value = ''
  try {
    await answered(api.PUT('/api/v1/jobs/{id}/on-board', { params: { path: { id: job.id } }, body: { on_board: on } }))
    taken.value = on ? null : job
    if (!on) told.value = `${job.vehicle} is off the board. Nothing of its job is lost.`
    await queryClient.invalidateQueries({ queryKey: ['jobs'] })
  } catch (e) {
    taken.value = null
    told.value = (e as Error).message
  }
}

/** Nothing was ever entered here: what is shown then is of no use to any other first view. */
const FirstRun = defineAsyncComponent(() => import('./FirstRun.vue'))
const KeptList = later(() => import('./KeptList.vue'))
const BackupLine = later(() => import('./BackupLine.vue'))
const none = computed(() => jobs.value?.length === 0)
const { data: vehicles, trouble: unread } = useRead({ ...reads.vehiclesFound('', 1), enabled: none })
const first = computed(() => none.value && vehicles.value?.total === 0)

const painted = ref(false)
onMounted(() => afterPaint(() => (painted.value = true)))
const { data: due } = useRead({ ...reads.due(), enabled: painted })
/** What is due within so many days is shown on the board. */
const soonDays = 60
const dueSoon = computed(() =>
  (due.value ?? []).filter((d) => new Date(d.on).getTime() < Date.now() + soonDays * 86_400_000),
)
const going = computed(() => (jobs.value ?? []).filter((j) => j.phase !== 'done'))
const groups = computed(() => [
  { label: 'Jobs on the go', title: '', jobs: going.value },
  { label: 'Signed jobs', title: 'Signed', jobs: (jobs.value ?? []).filter((j) => j.phase === 'done') },
  ...(tidying.value
    ? [{ label: 'Taken off the board', title: 'Taken off the board', jobs: off.value ?? [], back: true }]
    : []),
])
</script>

<template>
  <AppPage
    title="On the go"
    :ready="jobs !== undefined && (jobs.length > 0 || vehicles !== undefined || unread !== '') && !trouble"
    :trouble="trouble"
    failed="The board could not be read."
    waiting="Reading the board…"
    @again="again"
  >
    <template #else><KeptList /></template>
    <template #bar>
      <VBtn v-if="!first" size="small" :aria-pressed="tidying" @click="tidying = !tidying">
        {{ tidying ? 'Done' : 'Take off…' }}
      </VBtn>
      <VBtn v-if="!first" variant="flat" size="small" to="/start">Start a job</VBtn>
    </template>
    <ToldBar v-if="told" v-model="told" :action="taken ? 'Restore' : ''" @act="put(taken!, true)" />
    <BackupLine />
    <FirstRun v-if="first" />
    <StateNote
      v-else-if="jobs!.length === 0"
      title="No job is on the go."
      text="Start one: choose vehicle, clearances and feelers, and the bench leads from there."
    >
      <VBtn variant="flat" to="/start">Start a job</VBtn>
    </StateNote>
    <section
      v-for="g in groups.filter((x) => x.jobs.length || x.back)"
      :key="g.label"
      class="strips d-grid ga-3"
      :class="{ below: g.title }"
      :aria-label="g.label"
    >
      <h2 v-if="g.title" class="quiet fs-20">{{ g.title }}</h2>
      <p v-if="g.jobs.length === 0" class="quiet">
        None. A job started by mistake can be taken off, and brought back here.
      </p>
      <div v-for="(j, i) in g.jobs" :key="j.id" class="line d-grid align-center ga-3">
        <JobStrip :job="j" :first="!g.title && i === 0" :waits="waits(j.id)" />
        <VBtn
          v-if="tidying"
          :aria-label="g.back ? `Restore ${j.vehicle}` : `Take ${j.vehicle} off`"
          @click="put(j, Boolean(g.back))"
        >
          {{ g.back ? 'Bring back' : 'Take off' }}
        </VBtn>
      </div>
    </section>
    <section v-if="dueSoon.length" class="strips below d-grid ga-3" aria-label="Vehicles due">
      <h2 class="quiet fs-20">Due</h2>
      <RouterLink
        v-for="d in dueSoon"
        :key="d.vehicle_id"
        class="d-flex align-center tall-44"
        :to="`/vehicles/${d.vehicle_id}`"
      >
        <span
          ><b>{{ d.vehicle }}</b
          >, {{ new Date(d.on).getTime() < Date.now() ? 'since ' : '' }}{{ day(d.on) }}: {{ d.because }}</span
        >
      </RouterLink>
    </section>
  </AppPage>
</template>

<style scoped>
.line {
  grid-template-columns: minmax(0, 1fr) auto;
}

.line > :first-child:last-child {
  grid-column: 1 / -1;
}

.below {
  margin-top: 30px;
}

@media (width <= 640px) {
  .line {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
