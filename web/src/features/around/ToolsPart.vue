<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Doing } from '@/features/bench/useJob'
import FoldAway from '@/shared/FoldAway.vue'
import PickOne from '@/shared/PickOne.vue'
import { choices } from '@/shared/words'

const props = defineProps<{
  tools: Schemas['ToolView'][]
  sealed: boolean
  /** By what the engine is turned; empty: by the tool of its sheet. */ turnedBy?: Schemas['JobState']['turned_by']
  /** What to mind then. */ caution?: string
  /** Tools that one makes oneself, and what to mind in making them. */ made: string[]
  hotWork: string
}>()
const emit = defineEmits<{ do: [doing: Doing] }>()
const means = choices({
  '': 'Its own tool',
  pulley: 'Another pulley',
  fan: 'Fan and belt',
  wheel: 'A wheel in gear',
  push: 'Pushing it',
})
const out = computed(() => props.tools.filter((t) => t.out).length)
const move = (t: Schemas['ToolView']) => emit('do', { kind: 'tool', tool: t.id, back: t.out || undefined })
</script>

<template>
  <section class="tools d-grid ga-3">
    <h2 class="fs-28" role="status">
      <template v-if="out"
        >{{ out }} out: <em class="brass">count them back before the engine is started.</em></template
      >
      <template v-else>Nothing is out.</template>
    </h2>
    <ul class="d-grid ga-2 ma-0 pa-0 list-none">
      <li
        v-for="t in tools"
        :key="t.id"
        class="d-flex ga-3 align-center justify-space-between ps-4 pe-2 pt-2 pb-2 on-panel fs-20"
        :class="{ out: t.out }"
      >
        <span
          ><b>{{ t.text }}</b
          ><small v-if="t.on_crank || t.note" class="quiet d-block fs-15">{{
            t.on_crank ? 'off the crank before the starter is touched' : t.note
          }}</small></span
        >
        <VBtn :disabled="sealed" :aria-label="`${t.text}: ${t.out ? 'back' : 'take out'}`" @click="move(t)">{{
          t.out ? 'Back' : t.counted ? 'Back ✓ – out again' : 'Take out'
        }}</VBtn>
      </li>
    </ul>
    <FoldAway v-if="made.length" title="Tools one makes">
      <ul class="ps-5">
        <li v-for="m in made" :key="m" class="plain">{{ m }}</li>
      </ul>
      <p role="note">{{ hotWork }}</p>
    </FoldAway>
    <template v-if="!sealed">
      <h3 class="fs-20">Turned by</h3>
      <PickOne
        :model-value="turnedBy ?? ''"
        label="Turned by"
        :options="means"
        small
        @update:model-value="(by) => emit('do', { kind: 'turning_by', by })"
      />
      <p v-if="caution" role="note">{{ caution }}</p>
    </template>
  </section>
</template>

<style scoped>
li:not(.plain) {
  border-left: 6px solid var(--line);
}

li.out {
  border-left-color: var(--brass);
}

li .v-btn {
  flex: none;
  min-width: 160px;
  min-height: 56px;
}
</style>
