<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Rung, Schemas } from '@/shared/api/client'
import { mm } from '@/shared/units'
import { feelWord } from '@/shared/words'
import { later } from '@/shared/later'
import FeelButton from './FeelButton.vue'
import LadderRow from './LadderRow.vue'
import { same, useCursor } from './useCursor'
import { useByInstrument } from './useByInstrument'
import { useFeels, type Feel } from './useFeels'
import { isSingle, mostLaid, useStack } from './useStack'

const DialEntry = later(() => import('./DialEntry.vue'))
const PullLine = later(() => import('./PullLine.vue'))

const props = defineProps<{
  valve: string
  rungs: Rung[]
  round: Schemas['Reading'][]
  tryNext: string
  /** Whether no answer is taken just now. */ settling: () => boolean
}>()
const emit = defineEmits<{
  feel: [leaves: number[], angled: boolean[], feel: Feel]
  withdraw: [index: number]
  dial: [gap: number, doubt: number]
}>()

const { graded, columns, short, keyOf, byKey } = useFeels()
const all = ref(false)

const { laid, stack, lay, begin } = useStack(
  () => props.rungs,
  () => props.valve,
)
function feelStack(f: Feel) {
  if (props.settling() || !laid.value || laid.value.length < 2) return
  emit('feel', stack.value.leaves, stack.value.angled, f)
  laid.value = null
}
const near = computed(() => {
  if (laid.value) return props.rungs.filter(isSingle).reverse()
  const close = props.rungs.filter((r) => r.near)
  return [...(all.value || close.length < 3 ? props.rungs : close)].reverse()
})
const { cursor, box, climb } = useCursor(near, props)

function felt(r: Rung, feel: Feel): boolean {
  return props.round.some((x) => x.leaves_mm.length > 0 && x.feel === feel && same(x, r))
}

/** A tap says a feel; a second tap on the same one takes it back. */
function tap(r: Rung, feel: Feel) {
  if (props.settling()) return
  const at = props.round.findIndex((x) => x.feel === feel && same(x, r))
  if (at >= 0) emit('withdraw', at)
  else emit('feel', r.leaves_mm, r.angled, feel)
}

const { dialOpen, taken, pull } = useByInstrument(props)

/** A key of the bench: arrows climb, 1 2 3 say the feel. */
function key(k: string): boolean {
  if (k === 'ArrowUp' || k === 'ArrowDown') {
    climb(k === 'ArrowUp' ? 1 : -1)
    return true
  }
  if (k === 'd' || k === 'D') {
    dialOpen.value = !dialOpen.value
    return true
  }
  const rung = near.value[cursor.value]
  if (k === 's' || k === 'S') {
    begin()
    return true
  }
  if (laid.value && k === '+' && rung) {
    lay(rung)
    return true
  }
  const feel = byKey(k)
  if (!feel || !rung) return false
  if (laid.value) feelStack(feel)
  else tap(rung, feel)
  return true
}
defineExpose({ key })
</script>

<template>
  <div class="wrap d-flex flex-column shrinks" :class="{ graded }">
    <div class="heads quiet d-grid ga-2 align-center px-2 pt-0 pb-1 fs-15 text-center">
      <VBtn class="by-dial justify-start pa-0" variant="text" @click="dialOpen = !dialOpen"
        >dial gauge… <kbd>D</kbd></VBtn
      >
      <span v-for="f in columns" :key="f" aria-hidden="true"
        >{{ short(f) }} <kbd>{{ keyOf(f) }}</kbd></span
      >
    </div>
    <PullLine v-if="pull" :pull="pull" />
    <LadderRow
      v-if="laid"
      class="stacked mb-1"
      role="group"
      aria-label="The stack in hand"
      cursor
      :name="laid.length ? mm(stack.thickness) : '—'"
      :note="stack.name || 'lay two or three'"
    >
      <FeelButton
        v-for="f in columns"
        :key="f"
        :word="short(f)"
        :narrow="graded"
        :disabled="laid.length < 2"
        :aria-label="`${stack.name} ${feelWord[f]}`"
        @click="feelStack(f)"
      />
    </LadderRow>
    <div
      ref="box"
      class="ladder position-relative fills shrinks overflow-y-auto"
      role="group"
      :aria-label="`Leaves for ${valve}, thickest first`"
    >
      <LadderRow
        v-for="(r, i) in near"
        :key="r.name"
        v-memo="[JSON.stringify(r), i, i === cursor, laid, graded, columns.map((f) => felt(r, f)).join()]"
        :rung="r"
        :name="r.name"
        :cursor="i === cursor"
        @point="cursor = i"
      >
        <FeelButton
          v-if="laid"
          class="add"
          :word="laid.includes(r.name) ? 'in the stack' : 'lay it on'"
          :felt="laid.includes(r.name)"
          :disabled="!laid.includes(r.name) && laid.length === mostLaid"
          :aria-label="`${r.name} in the stack`"
          @click="((cursor = i), lay(r))"
        />
        <FeelButton
          v-for="f in laid ? [] : columns"
          :key="f"
          :word="short(f)"
          :narrow="graded"
          :felt="felt(r, f)"
          :aria-label="`${r.name} ${feelWord[f]}`"
          @click="((cursor = i), tap(r, f))"
        />
      </LadderRow>
    </div>
    <div class="more d-flex flex-wrap justify-center">
      <VBtn v-if="!laid && rungs.some((r) => !r.near)" variant="text" @click="all = !all">
        {{ all ? 'Fewer leaves' : 'All leaves' }}
      </VBtn>
      <VBtn v-if="rungs.length > 1" variant="text" :aria-pressed="laid !== null" @click="begin">
        {{ laid ? 'No stack' : 'Stack…' }} <kbd>S</kbd>
      </VBtn>
      <VBtn v-if="!laid" variant="text" :aria-pressed="graded" @click="graded = !graded">
        {{ graded ? 'One drag' : 'Grade the drag' }}
      </VBtn>
    </div>
    <DialEntry
      v-model="dialOpen"
      :round="round"
      :taken="taken"
      @withdraw="(i) => emit('withdraw', i)"
      @dial="(gap, doubt) => emit('dial', gap, doubt)"
    />
  </div>
</template>

<style scoped>
.wrap {
  --columns: 116px 10px repeat(3, 1fr);
}

.wrap.graded {
  --columns: 96px 8px repeat(5, 1fr);
}

.heads {
  grid-template-columns: var(--columns);
}

.by-dial {
  grid-column: span 2;
}

.ladder {
  contain: layout style paint;
  scrollbar-width: thin;
}

.graded .heads,
.graded :deep(.rung) {
  gap: 5px;
}

.add {
  grid-column: 3 / -1;
}

.more .v-btn {
  padding: 0 10px;
}

@media (width <= 1150px) {
  .more .v-btn {
    padding: 0 4px;
    font-size: 15px;
  }

  .wrap:not(.graded) {
    --columns: 92px 8px repeat(3, 1fr);
  }

  .heads {
    gap: 6px;
  }
}

@media (width <= 480px) {
  .wrap:not(.graded) {
    --columns: 84px 8px repeat(3, 1fr);
  }

  .wrap.graded {
    --columns: 62px 5px repeat(5, 1fr);
  }

  .heads,
  .wrap :deep(.rung) {
    gap: 5px;
  }

  .graded .heads,
  .graded :deep(.rung) {
    gap: 3px;
  }

  .graded :deep(.thick) {
    font-size: 22px;
  }
}
</style>
