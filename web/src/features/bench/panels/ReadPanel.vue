<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import type { Schemas } from '@/shared/api/client'
import LeafLadder from '../parts/LeafLadder.vue'
import ValveTabs from '../parts/ValveTabs.vue'
import { useBench } from '../useBench'

const { state, valve, round, act, leave, setThough, instead, settling, proving } = useBench()
const ladder = useTemplateRef('ladder')
/** A valve that was kept out of limits and is chosen again: set it afresh, or leave it. */
const again = computed(
  () =>
    state.value.now.action === 'read' && valve.value!.needs && round.value.length === 0 && valve.value!.stage === '',
)

function feel(leaves: number[], angled: boolean[], f: Schemas['Reading']['feel']) {
  act({
    kind: 'reading',
    valve: valve.value!.name,
    leaves_mm: leaves,
    angled,
    feel: f,
    keep_sure: proving.value !== valve.value!.name,
  })
}
const isSettling = () => settling.value // asked when a leaf is tapped: a ladder is not drawn anew for it
defineExpose({ key: (k: string) => ladder.value?.key(k) ?? false })
</script>

<template>
  <ValveTabs />
  <p v-if="state.now.triage" class="quiet fs-16 lh-tight">{{ state.now.triage }}</p>
  <LeafLadder
    ref="ladder"
    class="fill"
    :valve="valve!.name"
    :rungs="state.now.ladder"
    :round="round"
    :try-next="valve!.judgement?.try_next ?? ''"
    :settling="isSettling"
    @feel="feel"
    @withdraw="(i) => act({ kind: 'withdrawn', valve: valve!.name, index: i })"
    @dial="
      (gap, doubt) => act({ kind: 'dial', valve: valve!.name, gap_mm: gap, uncertainty_mm: doubt, keep_sure: true })
    "
  />
  <div v-if="valve!.may_set && round.length > 0" class="else d-grid two-columns ga-2">
    <VBtn @click="instead()">Set {{ valve!.name }} now…</VBtn>
    <VBtn @click="leave(valve!.name)">Leave {{ valve!.name }} as it is…</VBtn>
  </div>
  <div v-else-if="valve!.may_set_though" class="else d-grid two-columns ga-2">
    <VBtn @click="setThough(valve!.name)">Set {{ valve!.name }} though it is in…</VBtn>
  </div>
  <div v-else-if="again" class="else d-grid two-columns ga-2">
    <VBtn @click="act({ kind: 'adjusted', valve: valve!.name })">Re-adjust {{ valve!.name }}</VBtn>
    <VBtn @click="leave(valve!.name)">Leave {{ valve!.name }} as it is…</VBtn>
  </div>
</template>

<style scoped>
/* The ladder takes what room there is, and three leaves' at least. */
.fill {
  flex: 1 1 0;
  min-height: 250px;
}

@media (width <= 1000px) {
  .fill {
    flex: 1 1 auto;
    min-height: 0;
  }
}
</style>
