<script setup lang="ts">
import WhyLink from '@/shared/WhyLink.vue'
import { computed, ref } from 'vue'
import ReasonDialog from '@/shared/ReasonDialog.vue'
import { decimal } from '@/shared/decimal'
import PickOne from '@/shared/PickOne.vue'
import { mine } from '@/shared/mine'
import { clock, when } from '@/shared/units'
import { choices } from '@/shared/words'
import CoolingPlot from '../parts/CoolingPlot.vue'
import NumberPad from '../parts/NumberPad.vue'
import ProbeLine from '../parts/ProbeLine.vue'
import { useBench } from '../useBench'
import { useProbe } from '@/shared/useProbe'

const { state, practice, refused, act } = useBench()
const { probe: workshop } = useProbe()
/** That of the workshop; on a practice engine the thermometer that hangs on it. */
const probe = computed(() =>
  practice.value ? { ...practice.value, state: 'ok' as const, detail: '', at: null } : workshop.value,
)
const fields = [
  { name: 'Engine', i: 0 },
  { name: 'Ambient', i: 1 },
] as const
const readings = computed(() => state.value.temperatures)
const cooling = computed(() => state.value.cooling)
/** The figures as they are typed, in this person's unit. */
const heat = mine('temperature')
const text = ref(['', readings.value.length ? heat.own(Math.round(readings.value.at(-1)!.ambient_c)).toFixed(0) : ''])
const at = ref(0)
const asking = ref(false)
const ready = computed(() => text.value.every((t) => decimal(t) !== null))
const kept = (i: 0 | 1) => {
  const figure = decimal(text.value[i]!)
  return figure === null ? undefined : heat.kept(figure)
}
const figures = () => ({ engine_c: kept(0)!, ambient_c: kept(1)! })
const prepare = () => act({ kind: 'prepared', ...figures() })
/** Carries on for a reason: by the figures where there are any, else by the word that was refused or by none. */
function anyway(reason: string) {
  if (ready.value) act({ kind: 'prepared', ...figures(), reason })
  else if (card.value.state === 'hot') act({ kind: 'judged_hot', how: hotHow.value || 'other', reason })
  else act({ ...coldWord(tried.value), reason })
}
const card = computed(() => state.value.card)
const limit = computed(() => `${card.value.state === 'hot' ? 'Hot' : 'Cold'} figures: ${card.value.holds}.`)

/** Whether it is judged cold by the hours that it stood. */
const judged = ref(false)
const hours = ref('')
const helped = ref<string[]>([])
const standing = computed(() => decimal(hours.value) ?? 0)
/** What it was judged cold by last, to be carried on by for a reason where that was refused. */
const tried = ref<'overnight' | 'hours' | 'hand'>('hand')
const coldWord = (by: 'overnight' | 'hours' | 'hand') => ({
  kind: 'judged_cold' as const,
  by,
  hours: by === 'hours' ? standing.value : undefined,
  helped: helped.value.length ? helped.value : undefined,
  ambient_c: kept(1),
})
function judgeCold(by: 'overnight' | 'hours' | 'hand') {
  tried.value = by
  act(coldWord(by))
}

/** How an engine is judged hot without a thermometer, and for how many minutes it ran. */
const hotBy = choices({ fan: 'Fan cut in', needle: 'Needle in its place', hose: 'Top hose hot', other: 'Other signs' })
const hotHow = ref<'' | 'fan' | 'needle' | 'hose' | 'other'>('')
const ran = ref('')
function judgeHot() {
  act({ kind: 'judged_hot', how: hotHow.value as 'fan', ran_min: decimal(ran.value) ?? undefined })
}

function go() {
  if (at.value === 0 && text.value[0] && !text.value[1]) at.value = 1
  else if (ready.value) prepare()
}

function note() {
  if (!ready.value) return
  act({ kind: 'temperature', ...figures() })
  text.value = ['', text.value[1]!]
  at.value = 0
}

function take() {
  const p = probe.value
  if (p?.state !== 'ok' || p.engine_c === null || p.ambient_c === null) return
  text.value = [p.engine_c, p.ambient_c].map((c) => heat.own(c).toFixed(1))
  if (practice.value) prepare() // what hangs there is what is so
}

/** Its heat is the mechanic’s word, or a practice engine’s thermometer: no figure is typed. */
const byWord = computed(() => practice.value !== null || Boolean(hotHow.value) || judged.value)

function key(k: string): boolean {
  if (practice.value && /^(t|T|Enter)$/.test(k)) {
    take()
    return true
  }
  if (byWord.value) return false
  const now = text.value[at.value]!
  const put = (t: string) => (text.value = text.value.map((x, i) => (i === at.value ? t : x)))
  if (/^\d$/.test(k) && now.replace(/[-.]/g, '').length < 4) put(now + k)
  else if ((k === '.' || k === ',') && !now.includes('.')) put(`${now || '0'}.`)
  else if (k === '-') put(now.startsWith('-') ? now.slice(1) : `-${now}`)
  else if (k === 'Backspace') put(now.slice(0, -1))
  else if (k.startsWith('Arrow')) at.value = 1 - at.value
  else if (k === 'w' || k === 'W') note()
  else if (k === 't' || k === 'T') take()
  else if (k === 'Enter') go()
  else return /^[\d.,]$/.test(k)
  return true
}
defineExpose({ key })
</script>

<template>
  <div class="prepare d-flex fills flex-column ga-2">
    <VAlert v-if="state.closed && !refused" role="note">{{ state.closed }} <WhyLink page="heat" /></VAlert>
    <section v-if="card.state === 'cold'" class="byword d-grid ga-2" aria-label="No thermometer: judged cold">
      <div class="words d-flex flex-wrap ga-2">
        <VBtn class="tall-56" @click="judgeCold('overnight')">Stood overnight</VBtn>
        <VBtn v-if="!card.stone_cold" class="tall-56" @click="judgeCold('hand')">Cool to the hand</VBtn>
        <VBtn class="tall-56" :aria-pressed="judged" @click="judged = !judged">Stood for hours…</VBtn>
      </div>
      <template v-if="judged">
        <VTextField v-model="hours" label="Hours it stood" inputmode="decimal" hide-details />
        <div class="d-flex ga-5">
          <VCheckbox v-model="helped" value="fan" label="Fan running" hide-details />
          <VCheckbox v-model="helped" value="cover_off" label="Cover off" hide-details />
        </div>
        <VBtn variant="flat" :disabled="!(standing > 0)" @click="judgeCold('hours')">Judged cold – go on</VBtn>
      </template>
      <p class="quiet small fs-16 lh-tight">By your word, recorded as that with no figure; or by a thermometer:</p>
    </section>
    <section v-if="readings.length > 0 && card.state === 'cold'" class="cool">
      <p v-if="cooling?.ready_at" class="ready lh-tight fs-26">
        Ready at <b class="figure brass fs-34">{{ clock(cooling.ready_at) }}</b>
      </p>
      <p v-else-if="cooling" class="quiet">{{ cooling.why }}</p>
      <p v-else class="quiet">
        Last: {{ heat.say(readings.at(-1)!.engine_c) }}, {{ when(readings.at(-1)!.at) }}. A second reading gives the
        wait.
      </p>
      <CoolingPlot v-if="!refused" :readings="readings" :cooling="cooling" :gate="state.gate_c ?? null" />
    </section>
    <ProbeLine v-if="probe && probe.state !== 'off'" :probe="probe" :practice="Boolean(practice)" @take="take" />
    <p v-if="state.hot_forecast" class="quiet">{{ state.hot_forecast }}</p>
    <p v-if="card.state === 'hot'" class="fs-16 lh-tight" role="note">
      Key well away: it may crank by itself. Hot parts and oil burn; a fan may start by itself.
    </p>
    <div v-if="card.state === 'hot'" class="stopped d-grid ga-3 align-center">
      <VBtn v-if="!practice" :aria-pressed="Boolean(state.stopped_at)" @click="act({ kind: 'engine_stopped' })"
        >Engine stopped now</VBtn
      >
      <span class="quiet small fs-16 lh-tight" role="status">{{
        state.stopped_at
          ? `Shut off at ${clock(state.stopped_at)}: hot figures hold for ten minutes from there.`
          : 'Tap as you switch off: the ten minutes start here.'
      }}</span>
    </div>
    <section
      v-if="card.state === 'hot' && state.stopped_at && !practice"
      class="byword d-grid ga-2"
      aria-label="No thermometer: judged hot"
    >
      <PickOne v-model="hotHow" class="judged d-grid" label="Judged hot by" :options="hotBy" small may-be-none />
      <template v-if="hotHow">
        <VTextField v-model="ran" label="Minutes it ran (may be left out)" inputmode="decimal" hide-details />
        <p class="quiet small fs-16 lh-tight">
          The needle shows the coolant; oil and valve gear lag behind it. A hose under pressure scalds, a fan may start
          by itself, and the cap stays on. It is recorded as this, with no figure.
        </p>
        <VBtn variant="flat" @click="judgeHot">Judged hot – go on</VBtn>
      </template>
    </section>
    <div v-if="!byWord" class="fields d-grid two-columns ga-2">
      <VBtn v-for="{ name, i } in fields" :key="name" class="field py-1 px-3" :class="{ on: at === i }" @click="at = i">
        <span class="quiet">{{ name }}{{ kept(i) === undefined ? '' : `, ${heat.other(kept(i)!)}` }}</span>
        <span class="figure fs-34 font-weight-bold lh-tight"
          >{{ text[i] || '–' }}<small class="fs-20 font-weight-regular"> {{ heat.unit() }}</small></span
        >
      </VBtn>
    </div>
    <NumberPad v-if="!byWord" @key="key" />
    <VBtn v-if="practice && refused" @click="asking = true">Carry on anyway…</VBtn>
    <div v-if="!byWord" class="do d-flex flex-wrap ga-2 mt-auto">
      <VBtn v-if="refused" @click="asking = true">Carry on anyway…</VBtn>
      <VBtn v-if="ready" @click="note">Log only <kbd>W</kbd></VBtn>
      <VBtn class="go tall-64 fs-22" variant="flat" :disabled="!text[at]" @click="go">
        {{ ready ? 'Go on' : 'Next' }} <kbd>Enter</kbd>
      </VBtn>
    </div>
    <p v-if="!refused" class="quiet small fs-16 lh-tight">{{ limit }} The maker’s book and local rules win.</p>
    <ReasonDialog
      v-model="asking"
      title="Why carry on at this temperature?"
      text="The sheet will show that these figures were used outside their temperature, with this reason."
      :usual="['The engine cannot be run', 'The maker allows it for this check', 'Comparison only, set later']"
      button="Carry on with this reason"
      @reason="anyway"
    />
  </div>
</template>

<style scoped>
.byword .judged {
  grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
}

.words > * {
  flex: 1 1 100px;
  padding: 2px 8px;
  line-height: 1.2;
}

.stopped {
  grid-template-columns: auto 1fr;
}

.field :deep(.v-btn__content) {
  display: grid;
  flex: 1;
  gap: 0;
  justify-content: start;
  text-align: left;
}

.go {
  flex: 1 1 220px;
}
</style>
