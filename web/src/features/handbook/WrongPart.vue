<script setup lang="ts">
import { complaints } from '@/shared/complaints'
import { book } from './book'

/** What goes wrong, the gravest first, with what is said before; what tells a place from its look-alike; what comes next; and what is complained of. */
const { wrong } = book
</script>

<template>
  <section class="d-grid ga-5" aria-label="What goes wrong">
    <ul class="d-grid ga-2 ma-0 pa-0 list-none">
      <li v-for="s in wrong.slips" :id="s.slip" :key="s.slip" class="slip d-grid ga-1 py-3 px-4 on-panel bar-brass">
        <b class="fs-20">{{ s.says }}</b>
        <span v-if="s.warn">Before that: “{{ s.warn }}”</span>
      </li>
    </ul>
    <h2 id="turns" class="fs-24">One turn out?</h2>
    <dl class="d-grid ga-2 ma-0">
      <div v-for="t in wrong.turns" :key="t.until" class="py-3 px-4 on-panel">
        <dt class="fs-20 font-weight-bold">{{ t.until }}</dt>
        <dd class="ma-0">{{ t.how }}</dd>
      </div>
    </dl>
    <h2 id="next" class="fs-24">What comes next</h2>
    <dl class="d-grid ga-2 ma-0">
      <div v-for="n in wrong.nexts" :key="n.says" class="py-3 px-4 on-panel">
        <dt>{{ n.says }}</dt>
        <dd class="ma-0">
          <b class="fs-20">{{ n.comes }}.</b> {{ n.why }}
        </dd>
      </div>
    </dl>
    <h2 id="complaints" class="fs-24">What it is brought in for</h2>
    <ul class="complaints d-grid ga-2 ma-0 pa-0 list-none">
      <li v-for="c in complaints" :key="c.value" class="py-2 px-4 on-panel">
        <b>{{ c.title }}</b>: {{ c.points }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
.slip {
  scroll-margin-top: 90px;
}

.slip:target {
  border-left-width: 16px;
}

.complaints {
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
}
</style>
