<script setup lang="ts">
import { useWindowSize } from '@vueuse/core'
import { computed, watch } from 'vue'
import type { JobView } from '@/shared/api/client'
import HeadDrawing from '@/shared/engine/HeadDrawing.vue'
import { layOutFrom, type Stand } from '@/shared/engine/headLayout'
import { useStand } from '@/shared/engine/useStand'
import { useCrank } from '@/shared/engine/useCrank'
import { guard } from '@/shared/guard'
import { useReturnFocus } from '@/shared/useReturnFocus'
import { cylinderNotes, valvesShown } from '../benchPicture'

/** The whole head at once, as large as the screen lets it be. */
const props = defineProps<{ view: JobView; waits: string[] }>()
const open = defineModel<boolean>({ required: true })
useReturnFocus(open)
watch(open, guard.begin, { flush: 'sync' })
const crank = useCrank(
  computed(() => props.view.state.crank_deg),
  computed(() => props.view.state.plan?.direction === 'back'),
)
const { width, height } = useWindowSize()
const own = useStand(() => props.view.engine)
/** Beyond these the figures under the valves could not be read. */
const bare = computed(() => props.view.engine.valves.length > 16)
/** Seen from where its mechanic stands, or turned a quarter where it is larger so. */
const stand = computed<Stand>(() => {
  const turned = own.value === 'near' ? 'left' : 'near'
  const scale = (from: Stand) => {
    const seen = layOutFrom(props.view.engine, from, bare.value)
    return Math.min(width.value / seen.width, (height.value - 80) / seen.height)
  }
  return scale(turned) > scale(own.value) ? turned : own.value
})
</script>

<template>
  <VDialog v-model="open" fullscreen :transition="false" aria-label="The whole head">
    <div class="whole d-flex flex-column ga-2 pa-2 on-panel ink">
      <div class="d-flex align-center justify-space-between ga-4 ps-2">
        <h2 class="fs-20">{{ view.vehicle.name }}, {{ view.engine.name }}</h2>
        <VBtn @click="open = false">Close</VBtn>
      </div>
      <div class="fills shrinks">
        <HeadDrawing
          :engine="view.engine"
          :crank="crank"
          :shown="valvesShown(view, waits)"
          :notes="bare ? {} : cylinderNotes(view)"
          :bare="bare"
          :stand="stand"
        />
      </div>
    </div>
  </VDialog>
</template>

<style scoped>
.whole {
  height: 100dvh;
}
</style>
