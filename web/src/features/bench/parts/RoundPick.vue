<script setup lang="ts">
import { computed } from 'vue'
import FoldAway from '@/shared/FoldAway.vue'
import NumberField from '@/shared/NumberField.vue'
import PickOne from '@/shared/PickOne.vue'
import {
  aimings,
  checkRounds,
  checkTurns,
  choices,
  kindsFirst,
  lockings,
  roundsChosen,
  roundWords,
} from '@/shared/words'
import { useBench } from '../useBench'
import type { useRound } from '../useRound'
import ScopePick from './ScopePick.vue'

/** Schools of locking: the screw is held still, or set off the aim by what the nut will take. */
const nutWays = choices({
  held: 'Screw does not move',
  closes: 'Gap closes: set it slightly wide',
  opens: 'Gap opens: set it slightly tight',
})

/** Chooses how the engine is gone round: what is done at a stop, what is checked, which kind first, which valves. */
const props = defineProps<{ round: ReturnType<typeof useRound>['round'] }>()
const { state, view } = useBench()
const model = props.round
const mayBe = computed(() =>
  roundsChosen.filter((r) => state.value.rounds.includes(r.value === 'twice' ? 'set_as_you_go' : r.value)),
)
/** The round as it is called: setting as one goes and then checking all is going round twice. */
const going = computed({
  get: () => (model.round === 'set_as_you_go' && model.check === 'all' ? 'twice' : model.round),
  set: (r) => {
    if (r === 'twice') Object.assign(model, { round: 'set_as_you_go', check: 'all' })
    else Object.assign(model, { round: r, ...(going.value === 'twice' ? { check: state.value.usual_check } : {}) })
  },
})
const titled = (list: readonly { value: unknown; title: string }[], value: unknown) =>
  list.find((c) => c.value === value)!.title
/** What is chosen besides the round itself, in a line that opens to change it. */
const summary = computed(() => {
  const { round, check, one_kind_first, without } = props.round
  const [all, out] = [state.value.valves.length, without.length]
  return [
    ...(round === 'read_only' ? [] : [titled(checkRounds, check)]),
    titled(kindsFirst, one_kind_first).toLowerCase(),
    out ? `${all - out} of ${all} valves` : 'all valves',
  ].join(', ')
})

const nutMM = computed({ get: () => model.nutMM, set: (n?: number) => (model.nutMM = n ?? 0) })
</script>

<template>
  <section class="round">
    <PickOne v-model="going" class="row d-grid" label="Round" :options="mayBe" small />
    <p class="quiet fs-16 lh-tight">{{ roundWords(going) }}</p>
    <FoldAway :title="summary">
      <span v-if="round.round !== 'read_only'" class="quiet fs-15 d-block" aria-hidden="true">Check round</span>
      <PickOne
        v-if="round.round !== 'read_only'"
        v-model="model.check"
        class="row d-grid"
        label="Check round"
        :options="checkRounds"
        small
      />
      <span class="quiet fs-15 d-block" aria-hidden="true">One kind first</span>
      <PickOne v-model="model.one_kind_first" class="row d-grid" label="One kind first" :options="kindsFirst" small />
      <span class="quiet fs-15 d-block" aria-hidden="true">Turns before the check</span>
      <PickOne
        v-model="model.check_turns"
        class="row d-grid"
        label="Turns before the check"
        :options="checkTurns"
        small
      />
      <span v-if="view.engine.gear.lock_nut" class="quiet fs-15 d-block" aria-hidden="true">How a nut is locked</span>
      <PickOne
        v-if="view.engine.gear.lock_nut"
        v-model="model.locking"
        class="row d-grid"
        label="How a nut is locked"
        :options="lockings"
        small
      />
      <span v-if="view.engine.gear.lock_nut" class="quiet fs-15 d-block" aria-hidden="true"
        >When the nut goes tight</span
      >
      <PickOne
        v-if="view.engine.gear.lock_nut"
        v-model="model.nut"
        class="row d-grid"
        label="When the nut goes tight"
        :options="nutWays"
        small
      />
      <NumberField v-if="model.nut !== 'held'" v-model="nutMM" label="By how much, until it is learned" unit="mm" />
      <span class="quiet fs-15 d-block" aria-hidden="true">What is in and off the aim</span>
      <PickOne v-model="model.aiming" class="row d-grid" label="What is in and off the aim" :options="aimings" small />
      <ScopePick v-model="model.without" :engine="view.engine" />
    </FoldAway>
  </section>
</template>

<style scoped>
.round {
  display: grid;
  gap: 8px;
  padding-bottom: 8px;
  border-bottom: 2px solid var(--line);
}

.row {
  grid-auto-columns: 1fr;
  grid-auto-flow: column;
}

.row :deep(.v-btn) {
  padding: 2px 8px;
  line-height: 1.15;
}

@media (width <= 1150px) {
  .row {
    grid-template-columns: repeat(3, 1fr);
    grid-auto-flow: row;
  }
}

@media (width <= 480px) {
  .row {
    grid-template-columns: repeat(2, 1fr);
    grid-auto-flow: row;
  }
}
</style>
