<script setup lang="ts">
import { useRouter } from 'vue-router'
import { when } from '@/shared/units'
import { useBench } from '../useBench'

const { state } = useBench()
const router = useRouter()

function key(k: string): boolean {
  if (k !== 'Enter') return false
  void router.push(`/jobs/${state.value.id}/sheet`)
  return true
}
defineExpose({ key })
</script>

<template>
  <div class="done d-grid align-content-start ga-4 fs-20">
    <p>Every reading is on the sheet: as found, as left, limits, temperatures, who and when.</p>
    <p v-if="state.start_from" class="fs-26">
      Do not start before <b class="figure brass">{{ when(state.start_from) }}</b>: the sealant cures.
    </p>
    <VBtn variant="flat" :to="`/jobs/${state.id}/sheet`">See and print the sheet <kbd>Enter</kbd></VBtn>
    <VBtn :to="`/jobs/${state.id}/tag`">A tag for the key</VBtn>
    <VBtn :to="`/jobs/${state.id}/steps`">Start, listen, road test…</VBtn>
  </div>
</template>
