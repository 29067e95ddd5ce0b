<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import type { EngineView, Schemas, ValveView } from '@/shared/api/client'
import SideView from '@/shared/engine/SideView.vue'
import { mm } from '@/shared/units'
import { clicks } from './drag'
import type { Hand } from './usePractice'

/** The valve in hand from the side: what lies on it is rocked, and a dial indicator is read at it. */
const props = defineProps<{
  /** undefined: none is in hand. */ valve: ValveView | undefined
  gear: EngineView['gear']
  crank: number
  settable: boolean
  untold: boolean
  hand: (h: Hand) => Promise<Schemas['PracticeAnswer'] | null>
}>()
const name = computed(() => props.valve?.name ?? '')

/** Its play is seen and heard. */
const side = useTemplateRef('side')
async function rocks() {
  const got = name.value ? await props.hand({ rock: name.value }) : null
  if (got?.play === undefined) return
  clicks(got.play)
  const by = `${(got.play * 9).toFixed(1)}px`
  side.value
    ?.querySelector('svg')
    ?.animate([{ translate: '0 0' }, { translate: `0 ${by}` }, { translate: '0 0' }], { duration: 160, iterations: 2 })
}
/** What the dial indicator showed last, and at which valve: until something else is done there. */
const dialled = ref<{ valve: string; mm: number } | null>(null)
async function dials() {
  const valve = name.value
  const got = valve ? await props.hand({ dial: valve }) : null
  dialled.value = got?.dial_mm === undefined ? null : { valve, mm: got.dial_mm }
}
defineExpose({ rocks, dials, changed: () => (dialled.value = null) })
</script>

<template>
  <div v-if="valve" ref="side" class="side pa-2">
    <SideView
      :valve="valve"
      :gear="gear.picture"
      :crank="crank"
      :settable="settable"
      :untold="untold"
      :verdict="null"
      leaf=""
    />
    <div class="rock d-flex flex-wrap ga-2 justify-end align-center">
      <b v-if="dialled?.valve === name" class="figure fs-20" role="status">dial {{ mm(dialled.mm) }}</b>
      <VBtn size="small" @click="dials">Dial <kbd v-if="untold">D</kbd></VBtn>
      <VBtn size="small" @click="rocks">Rock it <kbd>R</kbd></VBtn>
    </div>
  </div>
</template>

<style scoped>
.side {
  position: relative;
  overflow: hidden;
  border-left: 2px solid var(--line);
}

.rock {
  position: absolute;
  right: 8px;
  bottom: 8px;
}

@media (width <= 640px) {
  .side {
    border-top: 2px solid var(--line);
    border-left: 0;
  }
}
</style>
