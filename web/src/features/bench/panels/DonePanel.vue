<script setup lang="ts">
import { useRouter } from 'vue-router'
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
    <VBtn variant="flat" :to="`/jobs/${state.id}/sheet`">See and print the sheet <kbd>Enter</kbd></VBtn>
  </div>
</template>
