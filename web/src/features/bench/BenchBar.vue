<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'
import { setTheme, theme } from '@/app/theme'
import type { JobView } from '@/shared/api/client'
import { mine } from '@/shared/mine'
import { phaseName } from '@/shared/phases'
import { later } from '@/shared/later'
import HotClock from './parts/HotClock.vue'
import MoreButton from './parts/MoreButton.vue'
import type { Way } from './parts/more'
import type { Doing } from './useJob'

const MoreMenu = later(() => import('./parts/MoreMenu.vue'), MoreButton)

/** What stands in the bench's head line: sequence, temperature and its clock, what is asked when the crank is in doubt, ways out. */
const props = defineProps<{ view: JobView; mayFind: boolean }>()
const emit = defineEmits<{ do: [doing: Doing]; find: []; choose: []; head: []; help: []; play: [] }>()
const state = computed(() => props.view.state)
/** A tablet held upright or a phone: sequence and temperature are looked up in the menu. */
const narrow = useMediaQuery('(width <= 1100px)')
/** Without room for the temperature beside the name. */
const tight = useMediaQuery('(width <= 1000px)')
/** A phone, on which the clock of a hot engine takes the room; and one lying down, which has one line. */
const small = useMediaQuery('(width <= 480px)')
const low = useMediaQuery('(width <= 1000px) and (height <= 480px)')

const heat = computed(() => {
  const { engine_c, cold_by, card } = state.value
  if (engine_c !== null) return `${card.state} ${mine('temperature').short(engine_c)}`
  return cold_by ? 'judged cold' : ''
})
const clockRuns = computed(() => state.value.hot_clock && !['done', 'await_hot'].includes(state.value.phase))
const mayChoose = computed(() => state.value.plan && !['sign', 'await_hot', 'done'].includes(state.value.phase))
const moved = computed<Way | null>(() =>
  props.mayFind && state.value.crank_deg !== null
    ? { title: 'Crank moved?', does: () => emit('do', { kind: 'doubted' }) }
    : null,
)
const hidesMoved = computed(() => low.value || (small.value && clockRuns.value))
/** What is seldom needed, as far as it may be done now. */
const more = computed<Way[]>(() => {
  const { id, phase, happenings, plan } = state.value
  const list: Way[] = []
  if (narrow.value && mayChoose.value) list.push({ title: plan!.title, does: () => emit('choose') })
  if (hidesMoved.value && moved.value) list.push(moved.value)
  if (low.value) list.push({ title: 'Head', does: () => emit('head') })
  if (state.value.valves.some((v) => v.may_feel)) list.push({ title: 'Play by hand', does: () => emit('play') })
  if (plan && phase !== 'done') list.push({ title: 'Helper at the crank', to: `/jobs/${id}/crank` })
  list.push({ title: 'Steps', to: `/jobs/${id}/steps` })
  if (happenings > 2) list.push({ title: 'Sheet', to: `/jobs/${id}/sheet` })
  if (props.view.correctable && phase !== 'done') list.push({ title: 'Correct details', to: `/jobs/${id}/start` })
  if (!narrow.value) list.push({ title: 'Keys', keys: true })
  list.push({
    title: theme.value === 'night' ? 'Day' : 'Night',
    does: () => setTheme(theme.value === 'night' ? 'day' : 'night'),
  })
  return list
})
</script>

<template>
  <span
    class="count d-grid lh-none text-right"
    :aria-label="`${phaseName(state.phase)}: ${state.done} of ${state.total}`"
  >
    <small class="text-no-wrap quiet fs-15">{{ phaseName(state.phase) }}</small>
    <b class="figure" :class="small ? 'fs-24' : 'fs-28'">{{ state.done }}/{{ state.total }}</b>
  </span>
  <VBtn v-if="!narrow && mayChoose" size="small" @click="emit('choose')">{{ state.plan!.title }}</VBtn>
  <HotClock
    v-if="clockRuns"
    :clock="state.hot_clock!"
    :engine-c="state.engine_c"
    @stopped="emit('do', { kind: 'engine_stopped' })"
  />
  <span
    v-else-if="heat && !tight"
    class="heat py-2 px-3 rounded is-in text-no-wrap"
    :class="state.card.state"
    :title="state.cold_by"
    >{{ heat }}</span
  >
  <VBtn v-if="mayFind" class="where" size="small" @click="emit('find')"> Where am I? <kbd>W</kbd> </VBtn>
  <VBtn v-if="moved && !hidesMoved" size="small" @click="moved.does!()">{{ moved.title }}</VBtn>
  <VBtn v-if="tight && !low" size="small" @click="emit('head')">Head</VBtn>
  <MoreMenu :ways="more" :heat="tight && heat && !clockRuns ? heat : ''" @help="emit('help')" />
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
  .count small {
    display: none;
  }
}

/* On a phone the name, how far it is and the menu stand in the first line, what is asked of the crank in the second. */
@media (width <= 480px) {
  .count {
    order: -2;
  }
}
</style>
