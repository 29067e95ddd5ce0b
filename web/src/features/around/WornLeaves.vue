<script setup lang="ts">
import { computed, ref } from 'vue'
import { answered, api, type Schemas } from '@/shared/api/client'
import { queryClient, reads, useRead } from '@/shared/api/reads'
import { gaps, mm } from '@/shared/units'

/** The leaves of the set that was used, wiped and counted after the job: one that is worn, bent or gone is marked so in its set. */
const props = defineProps<{ /** The name of the set. */ set: string }>()
const { data: sets, trouble } = useRead(reads.sets())
const used = computed(() => sets.value?.find((s) => s.name === props.set))
const told = ref('')
const called = (l: Schemas['Leaf']) => (l.marked_in != null ? gaps(true).say(l.marked_in * 25.4) : mm(l.marked_mm ?? 0))

async function mark(at: number) {
  const set = used.value!
  const gone = !set.items[at]!.missing
  const leaves = set.items.map((l, i) => (i === at ? { ...l, missing: gone } : l))
  told.value = ''
  try {
    await answered(
      api.PUT('/api/v1/gauge-sets/{id}', {
        params: { path: { id: set.id } },
        body: { name: set.name, leaves, ...(set.checked ? { checked: set.checked } : {}) },
      }),
    )
    await queryClient.invalidateQueries({ queryKey: ['sets'] })
    told.value = `${called(set.items[at]!)} of ${set.name}: ${gone ? 'not used any more' : 'in use again'}. Jobs on the go keep the leaves they began with.`
  } catch (e) {
    told.value = (e as Error).message
  }
}
</script>

<template>
  <section v-if="used" class="d-grid ga-2">
    <h3 class="fs-20">Leaves of {{ used.name }}: tap one that is worn, bent or gone</h3>
    <div class="d-flex flex-wrap ga-2" role="group" aria-label="Worn or missing leaves">
      <VBtn
        v-for="(l, i) in used.items"
        :key="i"
        class="figure"
        :class="{ gone: l.missing }"
        :aria-pressed="Boolean(l.missing)"
        :aria-label="`${called(l)}: ${l.missing ? 'worn or gone' : 'sound'}`"
        @click="mark(i)"
        >{{ called(l) }}</VBtn
      >
    </div>
    <p v-if="told" role="status">{{ told }}</p>
  </section>
  <p v-else-if="trouble" role="alert">{{ trouble }}</p>
</template>

<style scoped>
.gone {
  text-decoration: line-through;
}
</style>
