<script setup lang="ts">
import { computed } from 'vue'
import type { JobView } from '@/shared/api/client'
import type { Doing } from '@/features/bench/useJob'
import HeadDrawing, { type ValveShown } from '@/shared/engine/HeadDrawing.vue'

/** Every lock nut where it sits: a tap says that it was felt once more. */
const props = defineProps<{ view: JobView }>()
const emit = defineEmits<{ do: [doing: Doing] }>()

const felt = computed(() => new Set(props.view.state.nuts_felt))
const shown = computed<Record<string, ValveShown>>(() =>
  Object.fromEntries(
    props.view.engine.valves.map((v) => [
      v.name,
      {
        figure: felt.value.has(v.name) ? 'felt' : '',
        verdict: felt.value.has(v.name) ? 'in' : null,
        settable: !felt.value.has(v.name),
        here: false,
        chosen: false,
      },
    ]),
  ),
)
const tap = (valve: string) => emit('do', { kind: 'nut_felt', valve, back: felt.value.has(valve) || undefined })
</script>

<template>
  <div class="nuts overflow-x-auto" tabindex="0" role="group" aria-label="Lock nuts, a tap each">
    <HeadDrawing :engine="view.engine" :crank="null" :shown="shown" pickable="all" @pick="tap" />
  </div>
  <p class="figure" role="status">{{ felt.size }} of {{ view.engine.valves.length }} felt</p>
</template>

<style scoped>
.nuts :deep(svg) {
  min-width: 560px;
  max-height: min(380px, 38vh);
}
</style>
