<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { EngineView } from '@/shared/api/client'
import SetterGlyph from '@/shared/engine/SetterGlyph.vue'
import StepButtons from './StepButtons.vue'

/** The screw and the nut of the valve in hand. */
const props = defineProps<{
  valve: string
  loose: boolean
  gear: EngineView['gear']
  /** Turns it, and says by how much it moved; a stiff one sticks, then jumps. */
  turn: (byDeg: number) => Promise<number>
}>()
const emit = defineEmits<{ loosen: []; tighten: [] }>()
const at = ref(0)
/** What is turned here: a screw, a nut, a pivot. */
const part = computed(() => (props.gear.words.part || 'Screw').toLowerCase())
watch(
  () => props.valve,
  () => (at.value = 0),
)
async function turns(deg: number) {
  if (props.valve && props.loose) at.value += await props.turn(deg)
}
function nut() {
  if (!props.valve) return
  if (props.loose) emit('tighten')
  else emit('loosen')
}
defineExpose({ turns, nut })
const keys: Record<string, number> = { ArrowRight: 5, ArrowLeft: -5, ArrowUp: 30, ArrowDown: -30 }
function key(e: KeyboardEvent) {
  const deg = keys[e.key]
  if (deg === undefined || !props.loose) return
  e.preventDefault()
  e.stopPropagation()
  void turns(deg)
}
</script>

<template>
  <section class="d-grid ga-2 align-content-center" aria-label="Screw and nut">
    <svg class="head d-block w-100" viewBox="-60 -60 120 120" aria-hidden="true">
      <path class="nut f-panel sw-3" :class="loose ? 's-brass' : 's-quiet'" d="M-50 0L-25-43.3H25L50 0L25 43.3H-25Z" />
      <g :transform="`rotate(${at}) scale(0.6)`">
        <SetterGlyph :setter="gear.picture.setter" />
        <line class="s-ink sw-6" x1="-28" x2="28" y1="0" y2="0" />
      </g>
    </svg>
    <VBtn :disabled="!valve" @click="nut">{{ loose ? 'Tighten the nut' : 'Loosen the nut' }}</VBtn>
    <StepButtons
      :what="`Turn the ${part}`"
      :marks="['↺', '↻']"
      :ways="['anticlockwise', 'clockwise']"
      :disabled="!loose"
      @turn="turns"
      @keydown="key"
    />
  </section>
</template>

<style scoped>
.head {
  max-width: 110px;
  margin: auto;
}
</style>
