<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { reads, useRead } from '@/shared/api/reads'
import { vRadios } from '@/shared/radios'
import StateNote from '@/shared/StateNote.vue'
import { degrees } from '@/shared/units'
import { costLines, orderName } from '@/shared/words'
import RoundPick from '../parts/RoundPick.vue'
import { useBench } from '../useBench'
import { useRound } from '../useRound'

const { state, act, look, stay } = useBench()
const id = state.value.id
const present = computed(() => state.value.plan ?? null)
const { round, scope, fields, setting } = useRound(state.value)
const { data, trouble } = useRead(computed(() => reads.ways({ job: id }, fields.value)))
const ways = computed(() => data.value?.plans ?? [])
const cursor = ref(0)
const list = useTemplateRef<HTMLElement>('list')
const open = computed(() => ways.value.filter((w) => w.applies))
const closed = computed(() =>
  ways.value.filter((w, i, all) => !w.applies && all.findIndex((o) => o.school === w.school) === i),
)
const groups = computed(() => {
  const schools = [...new Set(open.value.map((w) => w.school))]
  return schools.map((school) => ({ school, plans: open.value.filter((w) => w.school === school) }))
})

let placed = false
watch(
  ways,
  () => {
    if (placed) return
    placed = ways.value.length > 0
    const rocking = open.value.findIndex((w) =>
      present.value
        ? w.school === present.value.school &&
          w.order === present.value.order &&
          w.direction === present.value.direction
        : w.school === 'rocking_pairs',
    )
    cursor.value = Math.max(0, rocking)
  },
  { immediate: true },
)
watch(
  () => open.value[cursor.value],
  async (plan) => {
    look(plan ?? null)
    await nextTick()
    // Where the list is the page's own length, the page stays at the instruction until the mechanic moves on.
    const box = list.value
    if (box && (moved || box.scrollHeight > box.clientHeight))
      box.querySelector('.on')?.scrollIntoView({ block: 'nearest' })
  },
)

function take() {
  const plan = open.value[cursor.value]
  if (!plan) return
  const { school, order, direction, positions, stop_count } = plan
  act({
    kind: 'way_chosen',
    school,
    order,
    direction,
    positions,
    stop_count,
    ...fields.value,
    scope: scope.value,
    ...setting.value,
  })
}

let moved = false
function key(k: string): boolean {
  const n = open.value.length
  moved ||= k.startsWith('Arrow')
  if (k === 'ArrowDown' || k === 'ArrowRight') cursor.value = (cursor.value + 1) % Math.max(1, n)
  else if (k === 'ArrowUp' || k === 'ArrowLeft') cursor.value = (cursor.value + n - 1) % Math.max(1, n)
  else if (k === 'Enter') take()
  else if (k === 'Escape' && present.value) stay()
  else return false
  return true
}
defineExpose({ key })
</script>

<template>
  <div class="ways d-flex fills flex-column ga-3 shrinks">
    <StateNote v-if="trouble" tone="trouble" title="The sequences could not be read." :text="trouble" />
    <RoundPick :round="round" />
    <div ref="list" v-radios class="list" role="radiogroup" aria-label="Sequences">
      <section v-for="g in groups" :key="g.school" class="school px-4 pt-3 pb-3 bar-edge on-panel">
        <h3 class="fs-24 lh-tight">{{ g.plans[0]!.title }}</h3>
        <p class="quiet">{{ g.plans[0]!.how_to }}</p>
        <div class="orders fits-160 d-grid ga-2 mt-2">
          <VBtn
            v-for="p in g.plans"
            :key="p.order + p.direction"
            role="radio"
            class="order justify-start py-2 px-3"
            :class="{ on: open[cursor] === p }"
            :aria-checked="open[cursor] === p"
            @click="cursor = open.indexOf(p)"
          >
            <b>{{ orderName(p) }}</b>
            <span class="figure fs-16"
              >{{ p.stops!.length }} stops · {{ degrees(p.costs?.all_in.turn_deg ?? p.total_turn_deg!) }}</span
            >
            <small v-if="p.direction === 'back'" class="undecided fs-15">{{ p.cautions.at(-1) }}</small>
            <small v-for="line in costLines(p)" :key="line" class="quiet fs-15">{{ line }}</small>
          </VBtn>
        </div>
      </section>
      <section v-for="w in closed" :key="w.school" class="school shut px-4 pt-3 pb-3 bar-edge on-panel bg-none">
        <h3 class="fs-24 lh-tight">
          {{ w.title }} <small class="quiet fs-16 font-weight-regular">not for this engine</small>
        </h3>
        <p class="quiet">{{ w.reason }}</p>
      </section>
    </div>
    <div class="do d-flex ga-2 py-1 px-0 on-ground">
      <VBtn v-if="present" @click="stay">Keep the sequence</VBtn>
      <VBtn :to="{ path: `/jobs/${id}/ways`, query: { ...fields, scope: scope?.join() } }">Side by side</VBtn>
      <VBtn class="go fills fs-22" variant="flat" :disabled="!open[cursor]" @click="take">
        Use this sequence <kbd>Enter</kbd>
      </VBtn>
    </div>
  </div>
</template>

<style scoped>
.list {
  display: grid;
  flex: 1 0 auto;
  align-content: start;
  gap: 14px;
  overflow-y: auto;
}

.school:has(.on) {
  border-color: var(--brass);
}

.shut {
  border-left-style: dotted;
}

.order {
  --v-btn-height: 72px;
}

.order :deep(.v-btn__content) {
  display: grid;
  gap: 2px;
  justify-content: start;
  text-align: left;
}

.do {
  position: sticky;
  bottom: 0;
  z-index: 2;
}

.go {
  min-width: 0;
}

@media (width <= 1100px) {
  .go kbd {
    display: none;
  }
}
</style>
