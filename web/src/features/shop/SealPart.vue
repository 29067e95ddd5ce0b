<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { answered, api, type Schemas } from '@/shared/api/client'
import { day } from '@/shared/units'
import { inGroups } from '@/shared/fingerprint'

/** By which key signed sheets are sealed, so that whoever gets one can tell it from a forged one. */
const seal = ref<Schemas['SealKeys'] | null>(null)
onMounted(async () => {
  seal.value = await answered(api.GET('/api/v1/seal')).catch(() => null)
})
</script>

<template>
  <section v-if="seal?.fingerprint" class="d-grid ga-3">
    <h2 class="fs-24">Seal of the sheets</h2>
    <p class="fs-20 in-figures">{{ inGroups(seal.fingerprint) }}</p>
    <p class="quiet">
      The fingerprint of this workshop’s key. Signed sheets bear its seal, on paper as a code: give the fingerprint to
      whoever gets sheets, and <code class="in-figures">metronix verify</code> tells a genuine one from a forged one.
    </p>
    <ul v-if="seal.before.length" class="quiet ma-0 ps-6">
      <li v-for="k in seal.before" :key="k.fingerprint">
        {{ day(k.since) }} to {{ day(k.until) }}: <span class="in-figures">{{ inGroups(k.fingerprint) }}</span>
      </li>
    </ul>
  </section>
</template>
