<script setup lang="ts">
import { computed } from 'vue'
import type { JobState } from '@/shared/api/client'
import { complaints } from '@/shared/complaints'
import { when } from '@/shared/units'

/** What stands on the sheet besides the valves: complaint, findings, what was passed over, what was added later. */
const props = defineProps<{ state: JobState }>()
const titles = computed(() =>
  (props.state.taken_in?.complaints ?? []).map((c) => complaints.find((x) => x.value === c)?.title.toLowerCase() ?? c),
)
const sounds = computed(() =>
  [
    { when: 'Before', ...props.state.sound_before },
    { when: 'After', ...props.state.sound_after },
  ].filter((s) => s.note || s.file),
)
const passed = computed(() => props.state.tasks.filter((t) => t.reason))
const missing = computed(() => props.state.tasks.filter((t) => props.state.missing.includes(t.id)))
</script>

<template>
  <section v-if="state.taken_in" class="part">
    <h2>Taken in</h2>
    <p>
      {{ [titles.join(', '), state.taken_in.note].filter(Boolean).join('; ') || 'No complaint.' }}
    </p>
  </section>
  <section v-if="state.hands.length || state.waits_said" class="part">
    <h2>Who was at it</h2>
    <p v-if="state.waits_said">It stands open and waits for {{ state.waits_said }}.</p>
    <p v-for="h in state.hands" :key="h.from">
      {{ h.name }} went on with it, {{ when(h.from) }}{{ h.note ? `: ${h.note}` : '.' }}
    </p>
  </section>
  <section v-if="sounds.length" class="part">
    <h2>How it sounds</h2>
    <p v-for="s in sounds" :key="s.when">
      {{ s.when }}: {{ s.note || 'recorded' }}
      <audio v-if="s.file" class="no-print" controls preload="none" :src="`/api/v1/sounds/${s.file}`" />
    </p>
  </section>
  <section v-if="state.findings.length" class="part">
    <h2>Findings</h2>
    <ul>
      <li v-for="f in state.findings" :key="f.finding">
        <b>{{ f.place }}: {{ f.what }}</b
        >{{ [f.test, f.part, f.price].filter(Boolean).length ? ', ' : ''
        }}{{ [f.test, f.part, f.price].filter(Boolean).join(', ') }} – {{ f.later ? 'left for later' : 'done' }}
        <img v-if="f.photo" :src="`/api/v1/photos/${f.photo}`" :alt="`${f.place}: ${f.what}`" />
      </li>
    </ul>
  </section>
  <section v-if="passed.length || state.exceptions" class="part">
    <h2>Exceptions</h2>
    <ul>
      <li v-for="t in passed" :key="t.id">
        {{ t.text }}: {{ t.skipped ? 'passed over' : 'done all the same' }}, {{ t.reason }}
      </li>
      <li v-if="state.exceptions">
        Signed without: {{ missing.map((t) => t.text).join('; ') }}. Reason: {{ state.exceptions }}
      </li>
    </ul>
  </section>
  <section v-if="state.amendments.length || state.countersigned" class="part added">
    <h2>Added after signing</h2>
    <ul>
      <li v-for="a in state.amendments" :key="a.at">{{ a.text }} ({{ a.by }}, {{ when(a.at) }})</li>
      <li v-if="state.countersigned">
        Countersigned by {{ state.countersigned.by }}, {{ when(state.countersigned.at) }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
.part {
  display: grid;
  gap: 4px;
}

h2 {
  font-size: 22px;
}

ul {
  margin: 0;
  padding-left: 20px;
}

img {
  display: block;
  max-width: 320px;
  max-height: 240px;
  margin: 6px 0;
}

.added {
  padding: 10px 16px;
  border-left: 6px solid var(--brass);
}

@media print {
  h2,
  ul,
  p {
    font-size: 13px;
  }
}
</style>
