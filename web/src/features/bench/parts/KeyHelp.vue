<script setup lang="ts">
import AppDialog from '@/shared/AppDialog.vue'

const open = defineModel<boolean>({ required: true })
const keys: [string, string][] = [
  ['Enter', 'do the one next thing'],
  ['1  2  3', 'the leaf is free, drags, won’t go'],
  ['↑  ↓', 'a thicker or thinner leaf; another sequence'],
  ['←  →', 'another valve at this stop'],
  ['0 … 9', 'figures, where a figure is asked for; tick before signing'],
  ['W', 'where am I? then the number of a rocking cylinder, M for the mark'],
  ['S  +', 'a stack laid by hand; lay the leaf at the cursor on it'],
  ['4  5', 'it drags lightly, firmly, where the drag is graded'],
  ['D', 'a reading by dial indicator, as a number'],
  ['T  W', 'take the probe’s reading; log the temperature only'],
  ['Z', 'take back the last step'],
  ['?', 'this list'],
]
</script>

<template>
  <AppDialog v-model="open" title="Keys of the bench" :width="560">
    <dl class="d-grid gr-2 gc-5 ma-0">
      <template v-for="[k, what] in keys" :key="k">
        <dt class="figure brass font-weight-bold">{{ k }}</dt>
        <dd class="ma-0">{{ what }}</dd>
      </template>
    </dl>
    <VBtn variant="flat" @click="open = false">Close</VBtn>
  </AppDialog>
</template>

<style scoped>
dl {
  grid-template-columns: auto 1fr;
}

dt {
  white-space: pre;
}
</style>
