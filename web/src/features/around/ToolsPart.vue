<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { Doing } from '@/features/bench/useJob'

const props = defineProps<{ tools: Schemas['ToolView'][]; sealed: boolean }>()
const emit = defineEmits<{ do: [doing: Doing] }>()
const out = computed(() => props.tools.filter((t) => t.out).length)
const move = (t: Schemas['ToolView']) => emit('do', { kind: 'tool', tool: t.id, back: t.out || undefined })
</script>

<template>
  <section class="tools d-grid ga-3">
    <h2 role="status">
      <template v-if="out">{{ out }} out: <em>count them back before the engine is started.</em></template>
      <template v-else>Nothing is out.</template>
    </h2>
    <ul>
      <li v-for="t in tools" :key="t.id" :class="{ out: t.out }">
        <span
          ><b>{{ t.text }}</b
          ><small v-if="t.on_crank || t.note" class="quiet">{{
            t.on_crank ? 'off the crank before the starter is touched' : t.note
          }}</small></span
        >
        <VBtn :disabled="sealed" :aria-label="`${t.text}: ${t.out ? 'back' : 'take out'}`" @click="move(t)">{{
          t.out ? 'Back' : t.counted ? 'Back ✓ – out again' : 'Take out'
        }}</VBtn>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  font-size: 28px;
}

em {
  color: var(--brass);
  font-style: normal;
}

ul {
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  gap: 14px;
  align-items: center;
  justify-content: space-between;
  padding: 8px 8px 8px 16px;
  border-left: 6px solid var(--line);
  background: var(--panel);
  font-size: 20px;
}

li.out {
  border-left-color: var(--brass);
}

small {
  display: block;
  font-size: 15px;
}

li .v-btn {
  flex: none;
  min-width: 160px;
  min-height: 56px;
}
</style>
