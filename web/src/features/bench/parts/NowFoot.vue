<script setup lang="ts">
import { computed } from 'vue'
import { guard } from '@/shared/guard'
import type { ValveState } from '@/shared/api/client'
import { useBench } from '../useBench'
import { helpable } from '../wordsNow'
import { later } from '@/shared/later'
import TellInOne from './TellInOne.vue'
import VerdictStrip from './VerdictStrip.vue'

const HandsClear = later(() => import('./HandsClear.vue'))

/** The foot of the bench: the verdict on what is in hand or was kept last, Undo, and the next action as the largest thing. */
const props = defineProps<{
  action: string
  /** Whether the panel is about a valve, so that its verdict belongs here; and whether the one kept last does. */
  valves: boolean
  showsKept: boolean
  /** The word of the next action; empty: it is done in the panel, and the hint says where. */
  button: string
  hint: string
  /** Who turns the crank; empty: whoever is at this screen. */
  helper: string
  /** The crank turns still: it is waited for. */
  turns: boolean
}>()
defineEmits<{ undo: []; go: []; prove: [valve: ValveState] }>()

const { state, valve } = useBench()
/** The crank is turned by somebody else, who is told here that he may; it may be done from here all the same. */
const helped = computed(() => props.helper !== '' && helpable(props.action))
const judgement = computed(
  () => valve.value?.judgement ?? (props.action === 'adjust' ? valve.value?.last?.judgement : undefined),
)
/** The valve that was kept last, by itself too: it stays named beside Undo. */
const kept = computed(() => {
  const { undo_kind, undo_valve, valves } = state.value
  const last = valves.find((v) => v.name === undo_valve)
  return ['reading', 'dial', 'kept'].includes(undo_kind) && last?.last && !last.round.length ? last : null
})
</script>

<template>
  <div class="foot d-grid flex-0-0 ga-2 px-0 pt-1 pb-4 on-ground">
    <VerdictStrip
      v-if="valves && judgement"
      :judgement="judgement"
      :screw="['adjust', 'lock'].includes(action) ? null : valve?.screw"
    />
    <VerdictStrip
      v-else-if="kept && showsKept && !helped"
      :judgement="kept.last!.judgement"
      :kept="kept.name"
      :cross="kept.cross_check"
      @cross="$emit('prove', kept)"
    />
    <TellInOne v-if="action === 'adjust' && state.now.tell" :tell="state.now.tell" :valve="state.now.valve" />
    <HandsClear v-if="helped" :helper="helper" />
    <footer class="do d-flex ga-2">
      <VBtn :disabled="!state.undo" @click="$emit('undo')">Undo <kbd>Z</kbd></VBtn>
      <VBtn
        v-if="button"
        class="go fills"
        :variant="helped ? 'outlined' : 'flat'"
        size="large"
        :aria-disabled="guard.on.value || turns"
        @click="$emit('go')"
      >
        <template v-if="turns">The crank turns…</template><template v-else>{{ button }} <kbd>Enter</kbd></template>
      </VBtn>
      <span v-else class="go hint quiet fills d-grid py-2 px-5 rounded fs-22 text-center place-center">{{ hint }}</span>
    </footer>
  </div>
</template>

<style scoped>
/* Verdict and next action stay in view, whatever scrolls above them. */
.foot {
  position: sticky;
  bottom: 0;
  z-index: 2;
}

.do .v-btn {
  min-height: 68px;
}

.hint {
  min-height: 68px;
  border: 2px dashed var(--line);
}

@media (width <= 1100px) {
  .foot {
    padding-bottom: 6px;
  }

  .do kbd {
    display: none;
  }
}

/* At twice the size, or on a phone lying down. */
@media (width <= 1000px) and (height <= 480px) {
  .do .v-btn {
    min-height: 58px;
  }
}
</style>
