<script setup lang="ts">
import { computed, ref } from 'vue'
import { answered, api, type Schemas } from '@/shared/api/client'
import { queryClient, reads, useRead } from '@/shared/api/reads'
import { gaps, mm } from '@/shared/units'

/** The leaves of the set that was used, wiped and counted after the job: one that is worn, bent or gone is marked so in its set. */
const props = defineProps<{ /** The name of the set. */ set: string }>()
const { data: sets, trouble } = useRead(reads.sets())
/** Those that are called so: where there are two, nobody guesses which was used. */
const called = computed(() => sets.value?.filter((s) => s.name === props.set) ?? [])
const used = computed(() => (called.value.length === 1 ? called.value[0] : undefined))
const marking = ref(false)
const told = ref('')
const leafName = (l: Schemas['Leaf']) =>
  l.marked_in != null ? gaps(true).say(l.marked_in * 25.4) : mm(l.marked_mm ?? 0)

async function mark(at: number) {
  if (marking.value) return // one after the other: each is laid over the set as it is stored
  marking.value = true
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
    told.value = `${leafName(set.items[at]!)} of ${set.name}: ${gone ? 'not used any more' : 'in use again'}. Jobs on the go keep the leaves they began with.`
  } catch (e) {
    told.value = (e as Error).message
  } finally {
    marking.value = false
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
        :disabled="marking"
        :aria-pressed="Boolean(l.missing)"
        :aria-label="`${leafName(l)}: ${l.missing ? 'worn or gone' : 'sound'}`"
        @click="mark(i)"
        >{{ leafName(l) }}</VBtn
      >
    </div>
    <p v-if="told" role="status">{{ told }}</p>
  </section>
  <p v-else-if="called.length > 1" class="quiet">
    {{ called.length }} feeler sets are called {{ set }}: mark a worn leaf under Feelers, in the one that was used.
  </p>
  <p v-else-if="trouble" role="alert">{{ trouble }}</p>
</template>

<style scoped>
.gone {
  text-decoration: line-through;
}
</style>
