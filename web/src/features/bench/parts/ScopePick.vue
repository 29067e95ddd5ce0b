<script setup lang="ts">
import { computed } from 'vue'
import type { JobView } from '@/shared/api/client'

/** Which valves this job is about: by bank, by cylinder, or one by one. What is left out needs no reading. */
const props = defineProps<{ engine: JobView['engine'] }>()
const without = defineModel<string[]>({ required: true })

const cylinders = computed(() =>
  props.engine.banks.flatMap((b) =>
    b.cylinders.map((cylinder) => ({
      cylinder,
      valves: props.engine.valves.filter((v) => v.cylinder === cylinder).map((v) => v.name),
    })),
  ),
)
const banks = computed(() =>
  props.engine.banks.map((b) => ({
    name: b.name,
    valves: props.engine.valves.filter((v) => b.cylinders.includes(v.cylinder)).map((v) => v.name),
  })),
)
const has = (valves: string[]) => valves.every((n) => !without.value.includes(n))

/** Takes valves into the job, or out of it; one at least stays. */
function toggle(valves: string[]) {
  const left = has(valves) ? [...without.value, ...valves] : without.value.filter((n) => !valves.includes(n))
  if (left.length < props.engine.valves.length) without.value = left
}
</script>

<template>
  <div class="scope d-grid ga-2" role="group" aria-label="Valves of this job">
    <p class="quiet">
      Valves of this job:
      {{ without.length ? `${engine.valves.length - without.length} of ${engine.valves.length}` : 'all' }}
    </p>
    <div v-if="banks.length > 1" class="line d-flex flex-wrap ga-1">
      <VBtn
        v-for="b in banks"
        :key="b.name"
        size="small"
        :class="{ on: has(b.valves) }"
        :aria-pressed="has(b.valves)"
        @click="toggle(b.valves)"
      >
        {{ b.name }}
      </VBtn>
    </div>
    <div class="cylinders fills-220 d-grid ga-2">
      <div v-for="c in cylinders" :key="c.cylinder" class="cylinder d-flex flex-wrap ga-1">
        <VBtn
          size="small"
          :class="{ on: has(c.valves) }"
          :aria-pressed="has(c.valves)"
          :aria-label="`Cylinder ${c.cylinder}`"
          @click="toggle(c.valves)"
        >
          <b>{{ c.cylinder }}</b>
        </VBtn>
        <VBtn
          v-for="v in c.valves"
          :key="v"
          size="small"
          :class="{ on: has([v]) }"
          :aria-pressed="has([v])"
          @click="toggle([v])"
        >
          {{ v }}
        </VBtn>
      </div>
    </div>
  </div>
</template>

<style scoped>
.v-btn {
  min-width: 52px;
  padding: 0 8px;
  color: var(--quiet);
}

.on {
  border-color: var(--brass);
  color: var(--ink);
}
</style>
