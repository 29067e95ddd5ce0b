<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { feelWord } from '@/shared/words'

/** How hard the leaf pulled on the scale, and what that is by one's own limits: said beside the leaves, and tapped by hand. */
const props = defineProps<{ pull: Schemas['InstrumentView'] }>()
const newtons = (n: number) => `${n.toFixed(1)} N`
const said = computed(() => (props.pull.feel ? `by your limits: ${feelWord[props.pull.feel]}` : ''))
</script>

<template>
  <p class="pull d-flex flex-wrap ga-3 align-center px-3 py-1 mb-1 on-panel bar-brass fs-18" role="status">
    <template v-if="pull.takes">
      <b class="figure fs-24">{{ newtons(pull.taken) }}</b>
      <span>{{ said }}</span>
    </template>
    <span v-else class="quiet">Pull the leaf by the scale: now {{ newtons(pull.value) }}</span>
  </p>
</template>
