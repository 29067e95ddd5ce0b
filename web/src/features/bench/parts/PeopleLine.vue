<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { capital } from '@/shared/words'

/** Who else is at the engine, each with what is in hand there; whoever is at the same valve is told first. */
const props = defineProps<{ others: Schemas['Presence'][]; valve: string; waitsFor: string }>()
const same = computed(() => props.others.filter((o) => props.valve && o.valve === props.valve))
const apart = computed(() => props.others.filter((o) => !same.value.includes(o)))
const where = (o: Schemas['Presence']) =>
  o.doing === 'helper' ? `${o.name} at the crank` : o.valve ? `${o.name} at ${o.valve}` : o.name
</script>

<template>
  <VAlert v-if="waitsFor" role="note">{{ waitsFor }}</VAlert>
  <p v-for="o in same" :key="o.screen" class="people same fs-18 font-weight-bold" role="note">
    {{ capital(o.name) }} is at {{ valve }} too: one of you takes another valve.
  </p>
  <p v-if="apart.length" class="people fs-15 quiet">Also at this engine: {{ apart.map(where).join(', ') }}</p>
</template>

<style scoped>
/* One line, so that the instruction stays in view above it. */
.people {
  margin: 0;
}

.same {
  color: var(--tight);
}
</style>
