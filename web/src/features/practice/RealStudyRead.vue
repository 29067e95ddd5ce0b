<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useKeys } from '@/shared/useKeys'
import { mm } from '@/shared/units'

/** One reading: who, which gap, which set; the leaf that drags, or two or three laid together. */
const props = defineProps<{ study: Schemas['GaugeStudyView']; busy: boolean }>()
const emit = defineEmits<{ read: [leaves: number[]] }>()
const next = computed(() => props.study.next!)
const together = ref(false)
const inHand = ref<number[]>([])
function take(leaf: number) {
  if (inHand.value.includes(leaf)) inHand.value = inHand.value.filter((l) => l !== leaf)
  else inHand.value = together.value ? [...inHand.value, leaf].slice(-3) : [leaf]
}
const name = computed(() => inHand.value.map(mm).join(' + '))
function say() {
  if (inHand.value.length && !props.busy) emit('read', inHand.value)
}
useKeys((k) => {
  const all = next.value.leaves_mm
  const at = all.indexOf(inHand.value.at(-1) ?? -1)
  if (k === '+' || k === 'ArrowRight') inHand.value = [all[Math.min(all.length - 1, at + 1)]!]
  else if (k === '-' || k === 'ArrowLeft') inHand.value = [all[Math.max(0, at - 1)]!]
  else if (k === 'Enter') say()
  else return false
  return true
})
</script>

<template>
  <section class="d-grid ga-4" aria-label="The reading to be made">
    <span class="quiet">Reading {{ study.done + 1 }} of {{ study.readings }}, {{ study.leaves_are }} leaves</span>
    <h2 class="fs-34 lh-tight">
      {{ next.reader }}, gap <em class="brass">{{ next.gap }}</em>, with {{ next.set }}: which leaf drags as it should?
    </h2>
    <div class="leaves d-grid ga-2" role="group" aria-label="Leaves">
      <VBtn
        v-for="l in next.leaves_mm"
        :key="l"
        size="large"
        class="figure"
        :variant="inHand.includes(l) ? 'flat' : 'outlined'"
        :aria-pressed="inHand.includes(l)"
        @click="take(l)"
        >{{ mm(l) }}</VBtn
      >
    </div>
    <VSwitch v-model="together" label="Two or three leaves together" hide-details @update:model-value="inHand = []" />
    <VBtn class="say" size="large" variant="flat" :disabled="!inHand.length || busy" @click="say">{{
      inHand.length ? `${name} drags as it should` : 'Choose the leaf'
    }}</VBtn>
  </section>
</template>

<style scoped>
.leaves {
  grid-template-columns: repeat(auto-fill, minmax(110px, 1fr));
}

.say {
  min-height: 84px;
  font-size: 28px;
}
</style>
