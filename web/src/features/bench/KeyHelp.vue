<script setup lang="ts">
import { useReturnFocus } from '@/shared/useReturnFocus'

const open = defineModel<boolean>({ required: true })
useReturnFocus(open)
const keys: [string, string][] = [
  ['Enter', 'do the one next thing'],
  ['1  2  3', 'the leaf is free, drags, won’t go'],
  ['↑  ↓', 'a thicker or thinner leaf; another sequence'],
  ['←  →', 'another valve at this stop'],
  ['0 … 9', 'figures, where a figure is asked for; tick before signing'],
  ['W', 'where am I? then the number of a rocking cylinder, M for the mark'],
  ['D', 'a reading by dial indicator, as a number'],
  ['T  W', 'take the probe’s reading; log the temperature only'],
  ['Z', 'take back the last step'],
  ['?', 'this list'],
]
</script>

<template>
  <VDialog v-model="open" max-width="560" aria-label="Keys of the bench">
    <div class="mx-dialog">
      <h2>Keys of the bench</h2>
      <dl>
        <template v-for="[k, what] in keys" :key="k">
          <dt class="figure">{{ k }}</dt>
          <dd>{{ what }}</dd>
        </template>
      </dl>
      <button class="mx-btn primary" type="button" @click="open = false">Close</button>
    </div>
  </VDialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 10px 20px;
  margin: 0;
}

dt {
  color: var(--brass);
  font-weight: 700;
  white-space: pre;
}

dd {
  margin: 0;
}
</style>
