<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import type { Rung, Schemas } from '@/shared/api/client'
import { mm, thou } from '@/shared/units'
import { feelWord } from '@/shared/words'
import DialEntry from './DialEntry.vue'

type Reading = Schemas['Reading']
type Feel = Exclude<Reading['feel'], ''>

const props = defineProps<{
  valve: string
  rungs: Rung[]
  round: Reading[]
  tryNext: string
  /** No answer is taken just now. */
  settling: boolean
}>()
const emit = defineEmits<{
  feel: [leaves: number[], angled: boolean[], feel: Feel]
  withdraw: [index: number]
  dial: [gap: number, doubt: number]
}>()

/** Said of a leaf: three feels, or a drag by how hard it pulls. Keys keep their meaning either way. */
const feels: Feel[] = ['free', 'drag', 'wont_go']
const gradedFeels: Feel[] = ['free', 'drag_light', 'drag', 'drag_firm', 'wont_go']
const keys: Feel[] = ['free', 'drag', 'wont_go', 'drag_light', 'drag_firm']
const graded = useLocalStorage('metronix.graded-drag', false)
const columns = computed(() => (graded.value ? gradedFeels : feels))
const gradedWord: Record<string, string> = { ...feelWord, drag_light: 'light', drag: 'right', drag_firm: 'firm' }
const short = (f: Feel) => (graded.value ? gradedWord : feelWord)[f]
interface Leaves {
  leaves_mm: number[]
  angled: boolean[]
}
const same = (a: Leaves, b: Leaves) =>
  a.leaves_mm.length === b.leaves_mm.length &&
  a.leaves_mm.every((x, i) => x === b.leaves_mm[i] && Boolean(a.angled[i]) === Boolean(b.angled[i]))
const all = ref(false)

/** The leaves of a stack as it is laid by hand; null: none is being laid. */
const laid = ref<string[] | null>(null)
const mostLaid = 3
watch(
  () => props.valve,
  () => (laid.value = null),
)
const single = (r: Rung) => r.leaves_mm.length === 1
const stack = computed(() => {
  const list = (laid.value ?? []).flatMap((name) => props.rungs.filter((r) => single(r) && r.name === name))
  return {
    name: list.map((r) => r.name).join(' + '),
    thickness: list.reduce((t, r) => t + r.thickness_mm, 0),
    leaves: list.flatMap((r) => r.leaves_mm),
    angled: list.flatMap((r) => r.angled),
  }
})
function lay({ name }: Rung) {
  const list = laid.value!
  if (list.includes(name)) laid.value = list.filter((x) => x !== name)
  else if (list.length < mostLaid) laid.value = [...list, name]
}
function feelStack(f: Feel) {
  if (props.settling || !laid.value || laid.value.length < 2) return
  emit('feel', stack.value.leaves, stack.value.angled, f)
  laid.value = null
}
const near = computed(() => {
  if (laid.value) return props.rungs.filter(single).reverse()
  const close = props.rungs.filter((r) => r.near)
  return [...(all.value || close.length < 3 ? props.rungs : close)].reverse()
})
const inThou = (r: Rung) => r.name.startsWith('.')
const cursor = ref(0)
const box = ref<HTMLElement>()

// The cursor waits on the leaf worth trying: the advised one, else the one to begin with.
watch(
  [() => props.valve, () => props.round.length, () => props.tryNext],
  () => {
    const advised = near.value.findIndex(
      (r) => props.tryNext !== '' && props.round.length > 0 && r.name === props.tryNext,
    )
    const first = near.value.findIndex((r) => r.first)
    const last = props.round.at(-1)
    const felt = last ? near.value.findIndex((r) => same(r, last)) : -1
    cursor.value = advised >= 0 ? advised : felt >= 0 ? felt : Math.max(0, first)
    void show()
  },
  { immediate: true },
)

async function show() {
  await nextTick()
  const list = box.value
  const row = list?.children[cursor.value] as HTMLElement | undefined
  if (!list || !row) return
  // Nothing moves under a finger: the list scrolls only where the row is out of sight.
  const above = row.offsetTop < list.scrollTop
  const below = row.offsetTop + row.offsetHeight > list.scrollTop + list.clientHeight
  if (above || below) list.scrollTop = row.offsetTop - (list.clientHeight - row.offsetHeight) / 2
}

function felt(r: Rung, feel: Feel): boolean {
  return props.round.some((x) => x.leaves_mm.length > 0 && x.feel === feel && same(x, r))
}

/** A tap says a feel; a second tap on the same one takes it back. */
function tap(r: Rung, feel: Feel) {
  if (props.settling) return
  const at = props.round.findIndex((x) => x.feel === feel && same(x, r))
  if (at >= 0) emit('withdraw', at)
  else emit('feel', r.leaves_mm, r.angled, feel)
}

const dialOpen = ref(false)

/** A key of the bench: arrows climb, 1 2 3 say the feel. */
function key(k: string): boolean {
  if (k === 'ArrowUp' || k === 'ArrowDown') {
    cursor.value = Math.min(near.value.length - 1, Math.max(0, cursor.value + (k === 'ArrowUp' ? -1 : 1)))
    void show()
    return true
  }
  if (k === 'd' || k === 'D') {
    dialOpen.value = !dialOpen.value
    return true
  }
  const rung = near.value[cursor.value]
  if (k === 's' || k === 'S') {
    laid.value = laid.value ? null : []
    return true
  }
  if (laid.value && k === '+' && rung) {
    lay(rung)
    return true
  }
  const feel = keys[Number(k) - 1]
  if (!feel || !rung || !columns.value.includes(feel)) return false
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
        >{{ short(f) }} <kbd>{{ keys.indexOf(f) + 1 }}</kbd></span
      >
    </div>
    <div
      v-if="laid"
      class="rung cursor stacked d-grid ga-2 align-center ps-1 pe-2 pt-1 pb-1 rounded mb-1"
      role="group"
      aria-label="The stack in hand"
    >
      <div class="leaf text-right lh-none">
        <span class="figure thick d-block font-weight-bold fs-28">{{ laid.length ? mm(stack.thickness) : '—' }}</span>
        <small class="quiet fs-14">{{ stack.name || 'lay two or three' }}</small>
      </div>
      <span class="bar align-self-stretch" aria-hidden="true" />
      <VBtn
        v-for="f in columns"
        :key="f"
        class="feel"
        :disabled="laid.length < 2"
        :aria-label="`${stack.name} ${feelWord[f]}`"
        @click="feelStack(f)"
      >
        {{ short(f) }}
      </VBtn>
    </div>
    <div
      ref="box"
      class="ladder position-relative fills shrinks overflow-y-auto"
      role="group"
      :aria-label="`Leaves for ${valve}, thickest first`"
    >
      <div
        v-for="(r, i) in near"
        :key="r.name"
        class="rung d-grid ga-2 align-center ps-1 pe-2 pt-1 pb-1 rounded"
        :class="{ window: r.in_window, cursor: i === cursor, other: r.other }"
      >
        <div class="leaf text-right lh-none" @click="cursor = i">
          <span class="figure thick d-block font-weight-bold fs-28" :class="{ stack: r.leaves_mm.length > 1 }">{{
            r.name
          }}</span>
          <small class="quiet fs-14" :class="{ wrong: r.other }">{{
            r.other
              ? `${r.other} leaf`
              : r.nominal
                ? 'set by this'
                : r.thickness_mm !== r.leaves_mm[0] && r.leaves_mm.length === 1
                  ? `is ${mm(r.thickness_mm)}`
                  : inThou(r)
                    ? mm(r.thickness_mm)
                    : thou(r.thickness_mm)
          }}</small>
        </div>
        <span class="bar align-self-stretch" aria-hidden="true" />
        <VBtn
          v-if="laid"
          class="feel add"
          :class="{ felt: laid.includes(r.name) }"
          :aria-pressed="laid.includes(r.name)"
          :disabled="!laid.includes(r.name) && laid.length === mostLaid"
          :aria-label="`${r.name} in the stack`"
          @click="((cursor = i), lay(r))"
        >
          {{ laid.includes(r.name) ? 'in the stack' : 'lay it on' }}
        </VBtn>
        <VBtn
          v-for="f in laid ? [] : columns"
          :key="f"
          class="feel"
          :class="{ felt: felt(r, f) }"
          :aria-pressed="felt(r, f)"
          :aria-disabled="settling"
          :aria-label="`${r.name} ${feelWord[f]}`"
          @click="((cursor = i), tap(r, f))"
        >
          {{ short(f) }}
        </VBtn>
      </div>
    </div>
    <div class="more d-flex flex-wrap justify-center">
      <VBtn v-if="!laid && rungs.some((r) => !r.near)" variant="text" @click="all = !all">
        {{ all ? 'Fewer leaves' : 'All leaves' }}
      </VBtn>
      <VBtn v-if="rungs.length > 1" variant="text" :aria-pressed="laid !== null" @click="laid = laid ? null : []">
        {{ laid ? 'No stack' : 'Stack…' }} <kbd>S</kbd>
      </VBtn>
      <VBtn v-if="!laid" variant="text" :aria-pressed="graded" @click="graded = !graded">
        {{ graded ? 'One drag' : 'Grade the drag' }}
      </VBtn>
    </div>
    <DialEntry
      v-model="dialOpen"
      :round="round"
      @withdraw="(i) => emit('withdraw', i)"
      @dial="(gap, doubt) => emit('dial', gap, doubt)"
    />
  </div>
</template>

<style scoped>
.heads,
.rung {
  grid-template-columns: 116px 10px repeat(3, 1fr);
}

.by-dial {
  grid-column: span 2;
}

.ladder {
  scrollbar-width: thin;
}

.rung {
  border: 2px solid transparent;
}

.rung.cursor {
  border-color: var(--brass);
  background: var(--wash);
}

.graded .heads,
.graded .rung {
  grid-template-columns: 96px 8px repeat(5, 1fr);
  gap: 5px;
}

.graded .feel {
  min-width: 0;
}

.add {
  grid-column: 3 / -1;
}

.more .v-btn {
  padding: 0 10px;
}

.thick.stack {
  font-size: 17px;
}

.bar {
  background: var(--line);
}

.window .bar {
  background: var(--in);
}

.feel {
  padding: 0 4px;
  color: var(--quiet);
}

.feel :deep(.v-btn__content) {
  white-space: nowrap;
}

.graded .feel :deep(.v-btn__content) {
  line-height: 1.1;
  white-space: normal;
}

.other .bar {
  background: repeating-linear-gradient(var(--undecided) 0 6px, transparent 6px 12px);
}

small.wrong {
  color: var(--undecided);
  font-weight: 700;
}

.feel.felt {
  border-color: var(--brass);
  background: var(--brass);
  color: var(--on-brass);
  font-weight: 700;
}

@media (width <= 1150px) {
  .heads,
  .rung {
    grid-template-columns: 92px 8px repeat(3, 1fr);
    gap: 6px;
  }

  .thick.stack {
    font-size: 20px;
  }
}

@media (width <= 480px) {
  .heads,
  .rung {
    grid-template-columns: 84px 8px repeat(3, 1fr);
    gap: 5px;
  }

  .graded .heads,
  .graded .rung {
    grid-template-columns: 62px 5px repeat(5, 1fr);
    gap: 3px;
  }

  .graded .thick {
    font-size: 22px;
  }

  .more .v-btn {
    padding: 0 4px;
    font-size: 15px;
  }

  .feel {
    font-size: 15px;
    padding: 0 2px;
  }
}
</style>
