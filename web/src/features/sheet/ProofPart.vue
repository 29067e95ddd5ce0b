<script setup lang="ts">
import type { Schemas } from '@/shared/api/client'
import { inGroups } from '@/shared/fingerprint'

/** The workshop's seal on a sheet: a code that carries what is sealed, and by which key it is checked. */
defineProps<{ proof: Schemas['SheetProof'] }>()
</script>

<template>
  <section class="proof d-grid ga-4 mt-6">
    <svg
      v-if="proof.code_size"
      class="code"
      :viewBox="`-4 -4 ${proof.code_size + 8} ${proof.code_size + 8}`"
      role="img"
      aria-label="Code of what is sealed"
    >
      <path :d="proof.code" />
    </svg>
    <div class="d-grid ga-2 align-content-start">
      <h2 class="fs-20">Sealed by the workshop</h2>
      <p>
        Key <span class="in-figures">{{ inGroups(proof.fingerprint) }}</span>
      </p>
      <p class="quiet fs-16">
        The code carries each valve as it was left, who signed and when.
        <code class="in-figures">metronix verify</code> tells whether it, or this sheet’s file, is what this key has
        sealed.
      </p>
    </div>
  </section>
</template>

<style scoped>
.proof {
  grid-template-columns: auto 1fr;
}

/* Dark on light in both themes: cameras read no other. */
.code {
  width: min(340px, 100%);
  background: #fff;
  fill: #000;
}

@media (width <= 640px) {
  .proof {
    grid-template-columns: 1fr;
  }
}
</style>
