<script setup lang="ts">
import ScrewDial from '@/shared/engine/ScrewDial.vue'
import VerdictGlyph from '@/shared/VerdictGlyph.vue'
import type { Answer } from './sums'

/** What a calculator says, large; or what is wrong with what was typed, each with its field. */
defineProps<{ answer: Answer | null; faults: { at: string; message: string }[] }>()
</script>

<template>
  <div class="answer d-grid ga-3 align-content-start fs-20" aria-live="polite">
    <template v-if="answer">
      <div v-if="answer.screw" class="dial"><ScrewDial :screw="answer.screw" nut /></div>
      <p class="large brass font-weight-bold lh-none" :class="answer.verdict">
        <VerdictGlyph v-if="answer.verdict" :verdict="answer.verdict" class="glyph" /> {{ answer.large }}
      </p>
      <p v-for="l in answer.lines" :key="l">{{ l }}</p>
    </template>
    <div v-else-if="faults.length" role="alert">
      <ul class="faults d-grid ga-2 ma-0 ps-8 pe-4 pt-3 pb-3 on-panel">
        <li v-for="f in faults" :key="f.at + f.message">
          <b v-if="f.at" class="brass">{{ f.at }}:</b> {{ f.message }}
        </li>
      </ul>
    </div>
    <p class="quiet small fs-16">The maker’s book and local rules win over any figure here.</p>
  </div>
</template>

<style scoped>
.dial {
  width: 220px;
  height: 220px;
}

.large {
  font-size: clamp(34px, 4.4vw, 58px);
}

.large.in {
  color: var(--in);
}

.large.tight {
  color: var(--tight);
}

.large.loose {
  color: var(--loose);
}

.large.undecided {
  color: var(--undecided);
}

.glyph {
  width: 52px;
  height: 52px;
  vertical-align: -6px;
}

.faults {
  border-left: 8px solid var(--tight);
}

@media (width <= 900px) {
  .answer {
    order: -1;
  }
}
</style>
