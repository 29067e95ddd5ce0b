<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { EngineView } from '@/shared/api/client'
import CrankPulley from '@/shared/engine/CrankPulley.vue'
import StepButtons from './StepButtons.vue'
import { yields } from './weight'

/** The crank, turned by drag, wheel and keys; compression makes it heavy. What is seen while it turns is told, what it came to is done. */
const props = defineProps<{
  engine: EngineView
  crank: number
  firing: number[]
  /** null: there is none to take off. */ tool: boolean | null
}>()
const emit = defineEmits<{ shows: [deg: number]; turn: [byDeg: number]; off: [] }>()

const by = ref(0)
const sense = computed(() => (props.engine.rotation === 'clockwise' ? 1 : -1))
const here = computed(() => (((props.crank + by.value) % 720) + 720) % 720)
watch(here, (deg) => emit('shows', deg))
watch(
  () => props.crank,
  () => (by.value = 0),
)

/** In one go, degrees: the program takes up to two turns. */
const most = 700
function moved(deg: number) {
  by.value = Math.max(-most, Math.min(most, by.value + deg))
}
/** As far as the hand goes; the crank yields as it will. */
const pushed = (deg: number) => moved(deg > 0 ? deg * yields(props.firing, here.value) : deg)

function done() {
  held.value = null
  const deg = Math.round(by.value * 10) / 10
  if (deg !== 0) emit('turn', deg)
  else by.value = 0
}

const held = ref<number | null>(null)
const angleOf = (e: PointerEvent) => {
  const box = (e.currentTarget as Element).getBoundingClientRect()
  return (Math.atan2(e.clientY - box.y - box.height / 2, e.clientX - box.x - box.width / 2) * 180) / Math.PI
}
function grips(e: PointerEvent) {
  const ring = e.currentTarget as HTMLElement
  ring.focus()
  ring.setPointerCapture(e.pointerId)
  held.value = angleOf(e)
}
function drags(e: PointerEvent) {
  if (held.value === null) return
  const now = angleOf(e)
  const step = ((now - held.value + 540) % 360) - 180
  held.value = now
  pushed(step * sense.value)
}
const marks = ['−', '+'] as const
let still = 0
function rolls(e: WheelEvent) {
  pushed(e.deltaY > 0 ? 4 : -4)
  clearTimeout(still)
  still = window.setTimeout(done, 350)
}
/** A button or a key turns by what it says: there the spanner is set anew as often as it needs. */
function steps(deg: number) {
  by.value = deg
  done()
}
const keys: Record<string, number> = {
  ArrowRight: 5,
  ArrowLeft: -5,
  ArrowUp: 30,
  ArrowDown: -30,
  PageUp: 90,
  PageDown: -90,
}
function key(e: KeyboardEvent) {
  const deg = keys[e.key]
  if (deg === undefined) return
  e.preventDefault()
  e.stopPropagation()
  steps(deg)
}
defineExpose({ key, steps, moved, done })
</script>

<template>
  <section class="d-grid ga-2 align-content-center" aria-label="The crank in your hand">
    <div
      class="ring"
      role="slider"
      tabindex="0"
      :aria-valuenow="Math.round(here)"
      aria-valuemin="0"
      aria-valuemax="720"
      :aria-valuetext="`${Math.round(here)} degrees of two turns`"
      aria-label="Turn the crank: drag it, or arrow keys"
      @pointerdown.prevent="grips"
      @pointermove="drags"
      @pointerup="done"
      @pointercancel="done"
      @wheel.prevent="rolls"
      @keydown="key"
    >
      <CrankPulley :crank="here" :rotation="engine.rotation" :marks="engine.marks_deg" />
    </div>
    <StepButtons what="Turn the crank" :marks="marks" @turn="steps" />
    <slot />
    <VBtn v-if="tool !== null" size="small" :disabled="!tool" @click="emit('off')">{{
      tool ? 'Take the tool off' : 'No tool on it'
    }}</VBtn>
  </section>
</template>

<style scoped>
.ring {
  width: 170px;
  height: 170px;
  margin: auto;
  cursor: grab;
  touch-action: none;
  user-select: none;
}

.ring:active {
  cursor: grabbing;
}
</style>
