<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'
import { setTheme, theme } from '@/app/theme'
import type { JobView } from '@/shared/api/client'
import { mine } from '@/shared/mine'
import { phaseName } from '@/shared/phases'
import HotClock from './parts/HotClock.vue'
import type { Doing } from './useJob'

/** What stands in the bench's head line: sequence, temperature and its clock, what is asked when the crank is in doubt, ways out. */
const props = defineProps<{ view: JobView; mayFind: boolean }>()
const emit = defineEmits<{ do: [doing: Doing]; find: []; choose: []; help: [] }>()
const state = computed(() => props.view.state)
/** A tablet or a phone: what is seldom needed is in a menu. */
const narrow = useMediaQuery('(width <= 1100px)')

interface Way {
  title: string
  to?: string
  does?: () => void
}
/** What is seldom needed, as far as it may be done now. */
const seldom = computed<Way[]>(() => {
  const { id, phase, crank_deg, happenings } = state.value
  const list: Way[] = []
  if (props.view.correctable && phase !== 'done') list.push({ title: 'Correct details', to: `/jobs/${id}/start` })
  if (props.mayFind && crank_deg !== null)
    list.push({ title: 'Crank moved?', does: () => emit('do', { kind: 'doubted' }) })
  list.push({ title: 'Steps', to: `/jobs/${id}/steps` })
  if (happenings > 2) list.push({ title: 'Sheet', to: `/jobs/${id}/sheet` })
  return list
})
const night = computed<Way>(() => ({
  title: theme.value === 'night' ? 'Day' : 'Night',
  does: () => setTheme(theme.value === 'night' ? 'day' : 'night'),
}))
</script>

<template>
  <VBtn v-if="state.plan && !['sign', 'await_hot', 'done'].includes(state.phase)" size="small" @click="emit('choose')">
    {{ state.plan.title }}
  </VBtn>
  <HotClock
    v-if="state.hot_clock && !['done', 'await_hot'].includes(state.phase)"
    :clock="state.hot_clock"
    :engine-c="state.engine_c"
    @stopped="emit('do', { kind: 'engine_stopped' })"
  />
  <span v-else-if="state.engine_c !== null" class="heat py-2 px-3 rounded is-in text-no-wrap" :class="state.card.state"
    >{{ state.card.state }} {{ mine('temperature').short(state.engine_c) }}</span
  >
  <span v-else-if="state.cold_by" class="heat cold py-2 px-3 rounded is-in text-no-wrap" :title="state.cold_by"
    >judged cold</span
  >
  <VBtn v-if="mayFind" class="where" size="small" @click="emit('find')"> Where am I? <kbd>W</kbd> </VBtn>
  <VMenu v-if="narrow" :transition="false">
    <template #activator="{ props: opens }"><VBtn v-bind="opens" class="more" size="small">More</VBtn></template>
    <VList class="edged">
      <VListItem
        v-for="w in [...seldom, night]"
        :key="w.title"
        tag="button"
        class="w-100 text-left"
        :to="w.to"
        :title="w.title"
        @click="w.does?.()"
      />
    </VList>
  </VMenu>
  <template v-else>
    <VBtn v-for="w in seldom" :key="w.title" size="small" :to="w.to" @click="w.does?.()">{{ w.title }}</VBtn>
    <VBtn size="small" aria-label="Keys" @click="emit('help')">?</VBtn>
  </template>
  <span
    class="count d-grid lh-none text-right"
    :aria-label="`${phaseName(state.phase)}: ${state.done} of ${state.total}`"
  >
    <small class="text-no-wrap quiet fs-15">{{ phaseName(state.phase) }}</small>
    <b class="figure fs-28">{{ state.done }}/{{ state.total }}</b>
  </span>
</template>

<style scoped>
.heat {
  border: 2px solid var(--in);
}

.heat::first-letter {
  text-transform: uppercase;
}

.heat.hot {
  border-color: var(--tight);
  color: var(--tight);
}

@media (width <= 1000px) {
  .heat {
    padding: 6px 8px;
    font-size: 16px;
  }

  .count small {
    white-space: nowrap;
    display: none;
  }
}

/* One row: what is needed after lunch stands first, the rest is a swipe away. */
@media (width <= 1400px) {
  .where,
  .count {
    order: -1;
  }
}
</style>
