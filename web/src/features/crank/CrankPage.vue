<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import type { HappeningOf } from '@/shared/api/client'
import AppPage from '@/shared/AppPage.vue'
import CrankPulley from '@/shared/engine/CrankPulley.vue'
import { degrees } from '@/shared/units'
import { programTime } from '@/shared/useQueue'
import { useJob } from '@/features/bench/useJob'
import { secondsLeft } from '@/features/bench/useClear'
import { usePresence } from '@/features/bench/usePresence'
import { turnsTo } from '@/features/bench/wordsNow'
import InstrumentLine from '@/shared/InstrumentLine.vue'
import { provideInstruments } from '@/shared/useInstruments'
import { whyWait } from './whyWait'

/** The helper at the crank: told to wait, or how far to turn, which way, and until what is seen. Nothing else is asked. */
const id = String(useRoute().params.id)
const { view, state, others, trouble, refusal, offline, load, send } = useJob(id)
onMounted(load)
const { here, reached } = usePresence(id, state, others, 'helper')
onMounted(here)

const { crank: encoder } = provideInstruments(id)
/** The crank turns still, by its encoder. */
const turns = computed(() => Boolean(encoder.value?.waits))

/** The program's time, as it goes by. */
const now = ref(programTime())
useIntervalFn(() => (now.value = programTime()), 250)
const waits = computed(() =>
  view.value ? whyWait(view.value, { now: now.value, reached: !offline.value && reached.value }) : '',
)
const left = computed(() => secondsLeft(view.value?.clear?.until ?? '', now.value))

/** Which way, where it is known how far; else in the instruction's own words. */
const way = computed(() => {
  const { now, plan } = state.value!
  if (now.turn_deg <= 0) return now.instruction?.how ?? ''
  const against = plan?.direction === 'back' ? ', against its running direction' : ''
  return `${turnsTo(view.value!)}, seen from the front${against}`
})

/** How far is to go: by the encoder, as it is turned; else as it was when it was confirmed. */
const far = computed(() => encoder.value?.to_go_deg ?? state.value!.now.turn_deg)

/** He saw what he was to turn until. */
function there() {
  if (turns.value) return
  const { action, stop, instruction } = state.value!.now
  const kind = action === 'bar_over' ? 'barred_over' : 'turned'
  void send({ kind, stop: kind === 'turned' || instruction ? stop : undefined } as HappeningOf<'turned'>)
}
</script>

<template>
  <AppPage
    title="At the crank"
    :sub="view?.vehicle.name"
    back="Bench"
    :back-to="`/jobs/${id}`"
    bare
    lean
    :ready="view !== null"
    :trouble="trouble?.message ?? ''"
    failed="This job could not be opened."
    waiting="Opening the job…"
    @again="load"
  >
    <main v-if="view && state" class="crank" :class="{ go: !waits }" aria-live="assertive">
      <template v-if="waits">
        <h2 class="wait">Wait</h2>
        <p class="why">{{ waits }}</p>
        <p v-if="refusal" class="why">{{ refusal }}</p>
      </template>
      <template v-else>
        <div class="dial">
          <CrankPulley
            :crank="encoder?.crank_deg ?? state.crank_deg"
            :rotation="view.engine.rotation"
            :marks="view.engine.marks_deg ?? []"
            :turning="turnsTo(view)"
          />
        </div>
        <h2 class="far figure">{{ far ? degrees(Math.round(far)) : 'Turn' }}</h2>
        <p class="how">{{ way }}</p>
        <p v-if="state.now.instruction" class="until">
          until <b>{{ state.now.instruction.until }}</b>
        </p>
        <p v-if="state.turn_caution" class="how">{{ state.turn_caution }}</p>
        <p class="left figure" role="timer">{{ left }} s</p>
        <InstrumentLine without-degrees />
        <VBtn class="there" :variant="turns ? 'outlined' : 'flat'" size="large" :aria-disabled="turns" @click="there">{{
          turns ? 'It turns…' : 'There'
        }}</VBtn>
      </template>
    </main>
  </AppPage>
</template>

<style scoped>
.crank {
  display: flex;
  flex: 1 1 auto;
  flex-direction: column;
  gap: 10px;
  align-items: center;
  justify-content: center;
  min-height: calc(100dvh - 76px);
  padding: 16px;
  border-top: 14px solid var(--tight);
  text-align: center;
}

.crank.go {
  border-top-color: var(--in);
}

.wait,
.far {
  font-size: clamp(84px, 26vw, 200px);
  line-height: 1;
}

.wait {
  color: var(--tight);
}

.why,
.how,
.until {
  max-width: 30em;
  margin: 0;
  font-size: clamp(22px, 3vw, 34px);
}

.until b {
  color: var(--brass);
}

.dial {
  width: min(38vw, 220px);
  height: min(38vw, 220px);
}

.left {
  margin: 0;
  font-size: 22px;
}

.there {
  width: 100%;
  max-width: 720px;
  min-height: 110px;
  font-size: 44px;
}
</style>
