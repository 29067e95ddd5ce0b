<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import AppPage from '@/shared/AppPage.vue'
import { answered, api } from '@/shared/api/client'
import { unpacked, type Handed } from '@/shared/handOver'
import { day, clock } from '@/shared/units'
import { useQueue } from '@/shared/useQueue'
import { entries } from '@/shared/words'

/**
 * What waited on this tablet under another address, of a machine that was lost. Nothing is taken over unasked: an address can be sent by
 * anybody. What is taken over waits here as it waited there, and is sent by whoever did it.
 */
const queue = useQueue()
const handed = ref<Handed | null>(null)
const trouble = ref('')
const taken = ref(0)
const jobs = ref<Record<string, string>>({})
onMounted(async () => {
  try {
    handed.value = await unpacked(location.hash.slice(1))
    history.replaceState(history.state, '', location.pathname) // once is enough
    const list = await answered(api.GET('/api/v1/jobs')).catch(() => [])
    jobs.value = Object.fromEntries(list.map((j) => [j.id, j.vehicle]))
  } catch (e) {
    trouble.value = (e as Error).message
  }
})
/** By job and author, in the order in which they were done. */
const groups = computed(() => {
  const all = new Map<string, { job: string; author: string; count: number; first: string; last: string }>()
  for (const { job, body, at } of handed.value?.list ?? []) {
    const author = body.author ?? ''
    const g = all.get(`${job} ${author}`) ?? { job, author, count: 0, first: at, last: at }
    g.count++
    g.last = at
    all.set(`${job} ${author}`, g)
  }
  return [...all.values()]
})

async function takeOver() {
  const { list } = handed.value!
  for (const w of list) await queue.takeOver(w)
  taken.value = list.length
  handed.value = null
  void queue.flush(() => {})
}
</script>

<template>
  <AppPage
    title="From another address"
    back="On the go"
    :ready="Boolean(handed) || taken > 0"
    :trouble="trouble"
    failed="Nothing was taken over."
    waiting="Reading what waited…"
    @again="() => $router.push('/')"
  >
    <template v-if="handed">
      <h2 class="fs-28">{{ entries(handed.list.length) }} waited on this tablet</h2>
      <p class="quiet">
        Under {{ handed.from }}, which could not be reached. Take them over only if you came here from that address just
        now, by <b>Another machine took over</b>.
      </p>
      <ul class="d-grid ga-2 pa-0 list-none">
        <li v-for="g in groups" :key="g.job + g.author" class="py-2 line-below fs-20">
          <b>{{ jobs[g.job] ?? `a job that is not here (${g.job})` }}</b>: {{ entries(g.count)
          }}{{ g.author ? ` of ${g.author}` : '' }}, {{ day(g.first) }} {{ clock(g.first) }} to
          {{ clock(g.last) }}
        </li>
      </ul>
      <div class="d-flex flex-wrap ga-3 mt-4">
        <VBtn variant="flat" size="large" @click="takeOver">Take over {{ entries(handed.list.length) }}</VBtn>
        <VBtn to="/">Leave them</VBtn>
      </div>
    </template>
    <template v-else>
      <h2 class="fs-28">{{ entries(taken) }} taken over</h2>
      <p class="quiet">
        They are sent now, each by whoever did it; on the bench of each job stands what is not taken. Should the machine
        of the old address come back, it is sent what waits there as well.
      </p>
      <VBtn variant="flat" to="/">On the go</VBtn>
    </template>
  </AppPage>
</template>
