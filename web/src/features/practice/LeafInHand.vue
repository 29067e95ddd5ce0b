<script setup lang="ts">
import { onScopeDispose, ref, watch } from 'vue'
import { mm } from '@/shared/units'
import { comesIn, slides, sounds } from './drag'

/** A leaf in the hand: chosen, slid in, and felt by how it goes and how it sounds. What was felt is for the learner to say. */
const props = defineProps<{
  valve: string
  advised: number
  slide: (mm: number) => Promise<number | null>
  quiet: boolean
}>()

const leaf = ref(props.advised)
watch(
  () => [props.valve, props.advised] as const,
  ([, advised]) => {
    leaf.value = advised
    at.value = 0
  },
)
const least = 0.05
const largest = 0.6
const other = (by: number) => {
  leaf.value = Math.min(largest, Math.max(least, Math.round((leaf.value + by) * 100) / 100))
  at.value = 0
}

/** How far it is in. */
const at = ref(0)
let asking = false
let frame = 0
onScopeDispose(() => cancelAnimationFrame(frame))
async function go() {
  if (asking) return
  asking = true
  cancelAnimationFrame(frame)
  at.value = 0
  const pull = await props.slide(leaf.value)
  asking = false
  if (pull === null) return
  const lasts = slides(pull)
  if (!props.quiet) sounds(pull, lasts)
  const began = performance.now()
  const step = (now: number) => {
    const t = Math.min(1, (now - began) / 1000 / lasts)
    at.value = comesIn(pull, t)
    if (t < 1) frame = requestAnimationFrame(step)
  }
  frame = requestAnimationFrame(step)
}
defineExpose({ go, other })
</script>

<template>
  <section class="d-grid ga-2 align-content-center" aria-label="The leaf in your hand">
    <svg class="gap d-block w-100" viewBox="0 0 240 76" aria-hidden="true">
      <rect class="f-panel s-quiet sw-2" x="130" y="6" width="100" height="24" rx="4" />
      <rect class="f-panel s-quiet sw-2" x="130" y="46" width="100" height="24" rx="4" />
      <g :transform="`translate(${at * 100} 0)`">
        <rect class="f-brass" x="6" y="34" width="124" height="8" />
        <circle class="f-none s-brass sw-4" cx="10" cy="38" r="8" />
      </g>
    </svg>
    <div class="d-flex ga-2 align-center justify-center">
      <VBtn size="small" aria-label="A thinner leaf" @click="other(-0.01)">−</VBtn>
      <b class="figure fs-28" aria-live="polite">{{ mm(leaf) }}</b>
      <VBtn size="small" aria-label="A thicker leaf" @click="other(0.01)">+</VBtn>
    </div>
    <VBtn variant="flat" :disabled="!valve" @click="go">{{
      valve ? `Slide it into ${valve}` : 'No valve in hand'
    }}</VBtn>
  </section>
</template>

<style scoped>
.gap {
  max-width: 260px;
  margin: auto;
}
</style>
