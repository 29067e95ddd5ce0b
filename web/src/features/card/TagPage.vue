<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { reads, useRead } from '@/shared/api/reads'
import AppPage from '@/shared/AppPage.vue'
import { clock, day } from '@/shared/units'

/** A tag to hang on the key of a finished job: from when the engine may be started, and what was done. */
const id = String(useRoute().params.id)
const { data: view, trouble, again } = useRead(reads.job(id))
const { data: sheet } = useRead(reads.sheet(id))
const from = computed(() => view.value?.state.start_from ?? '')
const fact = (label: string) => sheet.value?.facts.find((f) => f.label === label)?.text ?? ''
const left = computed(() => (view.value?.state.tools ?? []).filter((t) => t.out).map((t) => t.text))
const print = () => globalThis.print()
</script>

<template>
  <AppPage
    title="Tag for the key"
    back="Sheet"
    :back-to="`/jobs/${id}/sheet`"
    bare
    :ready="view !== undefined && sheet !== undefined"
    :trouble="trouble"
    failed="The tag could not be made."
    @again="again"
  >
    <template #bar><VBtn variant="flat" size="small" @click="print">Print</VBtn></template>
    <main v-if="view && sheet" class="page">
      <article class="tag d-grid ga-3 pa-6">
        <i class="hole" aria-hidden="true"></i>
        <h1 class="fs-34 lh-none">{{ view.vehicle.name }}</h1>
        <p v-if="view.vehicle.plate">{{ view.vehicle.plate }}</p>
        <p v-if="from" class="start lh-tight">
          Do not start before<br /><b class="figure">{{ clock(from) }}</b
          ><br />{{ day(from) }}: the sealant cures.
        </p>
        <p v-else class="start lh-tight">Valve clearances set</p>
        <p v-if="left.length">
          <b>Still out: {{ left.join(', ') }}.</b>
        </p>
        <p>{{ sheet.seal }}</p>
        <p v-if="fact('Next due')">Next due {{ fact('Next due') }}</p>
        <p>Tool, handle and socket off the crank. Fan and belts start without warning.</p>
      </article>
    </main>
  </AppPage>
</template>

<style scoped>
.tag {
  width: 105mm;
  max-width: 100%;
  margin: 16px auto;
  border: 3px solid var(--ink);
  border-radius: 14px;
  background: var(--panel);
}

.hole {
  width: 22px;
  height: 22px;
  border: 3px solid var(--ink);
  border-radius: 50%;
}

.start {
  padding: 12px 0;
  border-block: 3px solid var(--ink);
  font-size: 30px;
}

.start b {
  font-size: 64px;
}
</style>
