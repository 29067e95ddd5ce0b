<script setup lang="ts">
import { ref, useTemplateRef, watch } from 'vue'
import { mm } from '@/shared/units'
import LeafSlide from './LeafSlide.vue'

/** A leaf in the hand: chosen, slid in, and felt by how it goes and how it sounds. What was felt is for the learner to say. */
const props = defineProps<{
  valve: string
  advised: number
  /** Those that lie beside the engine, the thinnest first. */
  leaves: number[]
  slide: (mm: number) => Promise<number | null>
}>()

const slider = useTemplateRef('slider')
const nearest = (mm: number) =>
  props.leaves.reduce((a, b) => (Math.abs(b - mm) < Math.abs(a - mm) ? b : a), props.leaves[0] ?? mm)
const leaf = ref(nearest(props.advised))
watch(
  () => [props.valve, props.advised] as const,
  ([, advised]) => {
    leaf.value = nearest(advised)
    slider.value?.out()
  },
)
function other(by: 1 | -1) {
  const at = props.leaves.indexOf(leaf.value) + by
  leaf.value = props.leaves[Math.min(props.leaves.length - 1, Math.max(0, at))]!
  slider.value?.out()
}

let asking = false
async function go() {
  if (asking || !props.valve) return
  asking = true
  slider.value?.out()
  const pull = await props.slide(leaf.value)
  asking = false
  if (pull !== null) slider.value?.go(pull)
}
defineExpose({ go, other })
</script>

<template>
  <section class="d-grid ga-2 align-content-center" aria-label="The leaf in your hand">
    <LeafSlide ref="slider" />
    <div class="d-flex ga-2 align-center justify-center">
      <VBtn size="small" aria-label="A thinner leaf" @click="other(-1)">−</VBtn>
      <b class="figure fs-28" aria-live="polite">{{ mm(leaf) }}</b>
      <VBtn size="small" aria-label="A thicker leaf" @click="other(1)">+</VBtn>
    </div>
    <VBtn variant="flat" :disabled="!valve" @click="go">{{
      valve ? `Slide it into ${valve}` : 'No valve in hand'
    }}</VBtn>
  </section>
</template>
