<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import ScrewDial from '@/shared/engine/ScrewDial.vue'
import SideView from '@/shared/engine/SideView.vue'
import PickOne from '@/shared/PickOne.vue'
import { book } from './book'

/** Each kind of adjuster in the hand: what is turned, how it is held, and how it moves as its valve opens. */
const kinds = book.gears
const kind = ref(String(useRoute().query.kind ?? kinds[0]!.kind))
const gear = computed(() => kinds.find((g) => g.kind === kind.value) ?? kinds[0]!)
const valve = book.ways.engine.valves[0]!
const crank = ref(Math.round(valve.may_set[0]?.from_deg ?? 0))
const verdicts = [
  { value: 'tight' as const, title: 'Tight' },
  { value: 'in' as const, title: 'In' },
  { value: 'loose' as const, title: 'Loose' },
]
const verdict = ref<'tight' | 'in' | 'loose'>('in')
</script>

<template>
  <section class="d-grid ga-4" aria-label="Adjusters">
    <PickOne
      v-model="kind"
      class="one-row"
      label="Adjuster"
      small
      :options="kinds.map((g) => ({ value: g.kind, title: g.title }))"
    />
    <div class="one d-grid ga-4">
      <div class="side">
        <SideView
          :valve="valve"
          :gear="gear.picture"
          :crank="crank"
          settable
          :verdict="verdict"
          :leaf="gear.not_set ? '' : book.drag.leaf"
        />
      </div>
      <div class="d-grid ga-3 align-content-start">
        <h2 class="fs-30 lh-tight">{{ gear.title }}</h2>
        <p v-if="gear.not_set" class="fs-20">{{ gear.not_set }}</p>
        <template v-else>
          <p class="fs-20">The leaf goes between {{ gear.picture.between }}.</p>
          <p class="fs-20">{{ gear.words.turn.replace('{leaf}', 'the leaf') }}</p>
          <p>{{ gear.words.tools }}</p>
          <p v-if="gear.lock_nut">{{ gear.words.lock }}</p>
          <ul class="tools">
            <li v-for="t in gear.tools" :key="t">{{ t }}</li>
          </ul>
        </template>
        <div v-if="gear.means === 'turned'" class="dial">
          <ScrewDial :nut="gear.lock_nut" :setter="gear.picture.setter as never" />
        </div>
      </div>
    </div>
    <div class="d-flex flex-wrap ga-4 align-center">
      <PickOne v-model="verdict" label="Its gap" small :options="verdicts" />
      <VSlider
        v-model="crank"
        class="turns"
        :min="0"
        :max="719"
        :step="1"
        hide-details
        color="primary"
        aria-label="Crank position, degrees"
      />
    </div>
  </section>
</template>

<style scoped>
.one {
  grid-template-columns: minmax(0, 340px) minmax(0, 1fr);
}

.side {
  height: 380px;
}

.dial {
  width: 150px;
  height: 150px;
}

.tools {
  padding-left: 1.2em;
}

.turns {
  min-width: 220px;
}

@media (width <= 640px) {
  .one {
    grid-template-columns: minmax(0, 1fr);
  }

  .side {
    height: 280px;
  }
}
</style>
