<script setup lang="ts">
import type { EngineView, Schemas } from '@/shared/api/client'
import CrankPulley from '@/shared/engine/CrankPulley.vue'

/** The one instruction, beside the crank's pulley. */
defineProps<{
  words: Schemas['Headline']
  engine: EngineView
  crank: number | null
  pulley: boolean
  /** Which way it is to be turned. */
  turning?: EngineView['rotation']
}>()
</script>

<template>
  <header class="d-flex align-center ga-4">
    <div v-if="pulley" class="dial flex-0-0">
      <CrankPulley :crank="crank" :rotation="engine.rotation" :marks="engine.marks_deg ?? []" :turning="turning" />
    </div>
    <div>
      <h2 class="lh-none" aria-live="polite">
        {{ words.before }}<em class="brass">{{ words.strong }}</em
        >{{ words.after }}
      </h2>
      <p v-if="words.sub" class="sub mt-1 quiet fs-20">{{ words.sub }}</p>
    </div>
  </header>
</template>

<style scoped>
.dial {
  width: 104px;
  height: 108px;
}

h2 {
  font-size: clamp(28px, 2.9vw, 40px);
  text-wrap: balance;
}

/* A small tablet lying down: what is to be tapped has the room. */
@media (width <= 1100px) and (height <= 820px) {
  .dial {
    width: 68px;
    height: 68px;
  }
}

@media (width <= 480px) {
  .dial {
    display: none;
  }
}

/* At twice the size, or on a phone lying down, the instruction alone. */
@media (width <= 1000px) and (height <= 480px) {
  .dial,
  .sub {
    display: none;
  }

  h2 {
    font-size: 26px;
  }
}
</style>
