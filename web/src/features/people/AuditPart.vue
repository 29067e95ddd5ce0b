<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { answered, api, type Schemas } from '@/shared/api/client'
import { when } from '@/shared/units'
import { auditWords } from './auditWords'

/** Who did what besides jobs, when and from where, the newest first. */
const lines = ref<Schemas['NotedView'][]>([])
const more = ref(false)
const trouble = ref('')

async function load() {
  try {
    const before = lines.value.at(-1)?.n ?? 0
    const got = await answered(api.GET('/api/v1/audit', { params: { query: { before } } }))
    lines.value = [...lines.value, ...got.lines]
    more.value = got.more
    trouble.value = ''
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
onMounted(load)
</script>

<template>
  <section class="d-grid ga-3">
    <h2 class="fs-24">Audit list</h2>
    <p class="quiet">
      What was changed besides jobs, and who came and went. Each line is bound to the one before:
      <code>metronix check</code>
      finds one that was changed or taken out. What was done in a job stands on its sheet.
    </p>
    <VAlert v-if="trouble" role="alert">{{ trouble }}</VAlert>
    <p v-if="!lines.length && !trouble">Nothing was noted yet.</p>
    <div v-else class="scrolls" tabindex="0" role="region" aria-label="Audit list">
      <table class="fs-16">
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">Who</th>
            <th scope="col">What</th>
            <th scope="col">From</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in lines" :key="l.n" :class="{ refused: l.what === 'sign_in_refused' }">
            <td class="text-no-wrap">{{ when(l.at) }}</td>
            <td>{{ l.name || 'nobody' }}</td>
            <td>{{ auditWords(l.what) }}{{ l.about && `: ${l.about}` }}</td>
            <td class="text-no-wrap in-figures">{{ l.from }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="more"><VBtn @click="load">Earlier</VBtn></div>
  </section>
</template>

<style scoped>
.scrolls {
  overflow-x: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  padding: 8px 14px 8px 0;
  border-bottom: 1px solid var(--line);
  text-align: start;
}

/* On a phone each line has two of its own: when and from where, and below who and what. */
@media (width <= 640px) {
  thead {
    display: none;
  }

  tr {
    display: grid;
    grid-template-columns: 1fr auto;
    border-bottom: 1px solid var(--line);
    padding-block: 8px;
  }

  td {
    border: 0;
    padding: 2px 0;
  }

  td:nth-child(4) {
    order: -1;
    grid-column: 2;
  }

  td:first-child {
    order: -2;
    color: var(--quiet);
  }

  td:nth-child(2) {
    grid-column: 1 / -1;
    font-weight: 700;
  }

  td:nth-child(3) {
    grid-column: 1 / -1;
  }
}

.refused td:nth-child(3) {
  color: var(--tight);
}
</style>
