<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Schemas } from '@/shared/api/client'
import PickOne from '@/shared/PickOne.vue'
import { vRadios } from '@/shared/radios'
import StateNote from '@/shared/StateNote.vue'
import TopBar from '@/shared/TopBar.vue'
import { gaps } from '@/shared/units'
import VehicleForm from './VehicleForm.vue'
import { useStart } from './useStart'

const router = useRouter()
const route = useRoute()
const job = route.name === 'job-start' ? String(route.params.id) : ''
const s = useStart(job)
const { form, vehicles, off, engines, sets, loaded, trouble, faults, vehicle, engine, cards, missing, odd } = s
const editing = ref<'' | 'new' | 'this'>('')
const says = useTemplateRef<HTMLElement>('says')

onMounted(async () => {
  await s.load()
  if (loaded.value && vehicles.value.length === 0) editing.value = 'new'
})

const reasons = ['Distance interval', 'Ticking when warm', 'Rough idle', 'After a new cam has run in', 'Belt is due']
const hotCards = computed(() => cards.value.map((c, i) => ({ c, i })).filter(({ c }) => c.state === 'hot'))
const passes = computed(() => [
  { value: -1, title: 'These figures are final' },
  ...hotCards.value.map(({ c, i }) => ({ value: i, title: `Provisional start, then hot by ${c.source}` })),
])
const aims = [
  { value: 'nominal' as const, title: 'Aim for the nominal' },
  { value: 'loose' as const, title: 'Aim for the loose end' },
]
const rules = [
  { value: 'workshop' as const, title: 'Workshop rule: the estimate decides' },
  { value: 'guarded' as const, title: 'Strict rule: the whole uncertainty inside' },
]
/** Where a card says otherwise than the first one. */
const differs = (i: number) => {
  const first = cards.value[0]!
  return i === 0
    ? []
    : cards.value[i]!.differences.map((d) => `${d.what}: ${d.here || '–'} against ${d.first || '–'} (${first.source})`)
}
const window = (l: Schemas['Limits']) => `${gaps(l.in_thou).window(l)} ${gaps(l.in_thou).unit}`

function pick(id: string) {
  s.choose(id)
  editing.value = ''
}

async function stored(v: Schemas['Vehicle']) {
  editing.value = ''
  await s.load()
  s.choose(v.id)
}

async function remove() {
  if (vehicle.value) await s.putOnBoard(vehicle.value, false)
  editing.value = ''
}

async function start() {
  const id = await s.start()
  if (id) return router.push(`/jobs/${id}`)
  await nextTick()
  says.value?.scrollIntoView({ block: 'center' })
}
</script>

<template>
  <TopBar
    :title="job ? 'Correct the job' : 'Start a job'"
    :back="job ? 'Bench' : 'Board'"
    :back-to="job ? `/jobs/${job}` : '/'"
  />
  <main class="page start">
    <StateNote v-if="trouble && !loaded" tone="trouble" title="This page could not be filled." :text="trouble">
      <button class="mx-btn primary" type="button" @click="s.load">Try again</button>
    </StateNote>
    <p v-if="!loaded && !trouble" class="quiet" role="status">Reading vehicles and engines…</p>
    <template v-if="loaded">
      <section>
        <h2><i>1</i> Vehicle</h2>
        <div v-radios class="tiles" role="radiogroup" aria-label="Vehicle">
          <button
            v-for="v in vehicles"
            :key="v.id"
            type="button"
            role="radio"
            class="tile"
            :class="{ on: v.id === form.vehicle }"
            :aria-checked="v.id === form.vehicle"
            @click="pick(v.id)"
          >
            <b>{{ v.name }}</b><span class="quiet">{{ v.plate }} · {{ v.engine_name }}</span>
            <small v-if="s.going(v)" class="differs">has a job on the go</small>
          </button>
        </div>
        <div class="reasons">
          <button class="mx-btn" type="button" :aria-expanded="editing === 'new'" @click="editing = 'new'">
            Another vehicle, or import its engine sheet
          </button>
          <button
            v-if="vehicle"
            class="mx-btn"
            type="button"
            :aria-expanded="editing === 'this'"
            @click="editing = editing === 'this' ? '' : 'this'"
          >
            Correct {{ vehicle.name }}
          </button>
        </div>
        <VehicleForm
          v-if="editing === 'new' || (editing === 'this' && vehicle)"
          :key="editing + form.vehicle"
          :engines="engines"
          :others="s.every.value"
          :vehicle="editing === 'this' ? vehicle : undefined"
          @stored="stored"
          @imported="s.load"
          @remove="remove"
          @cancel="editing = ''"
        />
        <details v-if="off.length" class="fine">
          <summary>Taken off the list: {{ off.length }}</summary>
          <div class="reasons">
            <button v-for="v in off" :key="v.id" class="mx-btn" type="button" @click="s.putOnBoard(v, true)">
              Restore {{ v.name }}
            </button>
          </div>
        </details>
      </section>
      <section v-if="engine">
        <h2><i>2</i> Figures</h2>
        <p v-if="!engine.cards?.length" class="quiet">
          The sheet of {{ engine.name }} has no clearance card. Import a sheet that has one.
        </p>
        <div v-radios class="tiles" role="radiogroup" aria-label="Clearance card">
          <button
            v-for="(c, i) in engine.cards ?? []"
            :key="i"
            type="button"
            role="radio"
            class="tile"
            :class="{ on: form.card === i }"
            :aria-checked="form.card === i"
            @click="form.card = i"
          >
            <b>{{ c.state }} · {{ c.source }}</b>
            <small v-if="c.date || c.remark" class="quiet">{{ [c.date, c.remark].filter(Boolean).join(' · ') }}</small>
            <span
              ><span class="quiet">intake</span> <span class="figure">{{ window(c.intake) }}</span></span
            >
            <span
              ><span class="quiet">exhaust</span> <span class="figure">{{ window(c.exhaust) }}</span></span
            >
            <small class="quiet">{{ c.holds }}</small>
            <small v-for="d in differs(i)" :key="d" class="differs">{{ d }}</small>
          </button>
        </div>
        <VTextField
          v-if="cards.length > 1"
          v-model="form.cardReason"
          label="Why this card (the sheet shows it)"
          maxlength="200"
          hide-details
        />
        <PickOne
          v-if="cards[form.card]?.state === 'cold' && hotCards.length"
          v-model="form.hotCard"
          label="Hot pass"
          :options="passes"
        />
        <details class="fine">
          <summary>Aim, rule and feel</summary>
          <PickOne v-model="form.aim" label="Aim" :options="aims" />
          <VTextField
            v-if="form.aim === 'loose'"
            v-model="form.aimReason"
            label="Why the loose end"
            maxlength="200"
            hide-details
          />
          <PickOne v-model="form.rule" label="Rule" :options="rules" />
          <VTextField
            v-model="form.feel"
            label="Uncertainty of your feel, either way"
            suffix="mm"
            inputmode="decimal"
            hide-details
            :error="Boolean(faults.feel_mm)"
          />
        </details>
      </section>
      <section v-if="engine">
        <h2><i>3</i> Feelers, mechanic, reason</h2>
        <div v-radios class="tiles" role="radiogroup" aria-label="Gauge set">
          <button
            v-for="g in sets"
            :key="g.id"
            type="button"
            role="radio"
            class="tile"
            :class="{ on: form.set === g.id }"
            :aria-checked="form.set === g.id"
            @click="form.set = g.id"
          >
            <b>{{ g.name }}</b><span class="quiet">{{ g.leaves }} leaves</span>
          </button>
        </div>
        <div class="fields">
          <VTextField v-model="form.mechanic" label="Mechanic" maxlength="100" :error-messages="faults.mechanic" />
          <VTextField
            v-model="form.odometer"
            label="Odometer, km"
            inputmode="numeric"
            maxlength="9"
            :error-messages="faults.odometer_km"
          />
        </div>
        <div v-radios class="reasons" role="radiogroup" aria-label="Reason">
          <button
            v-for="r in reasons"
            :key="r"
            type="button"
            role="radio"
            class="mx-btn small"
            :class="{ picked: form.reason === r }"
            :aria-checked="form.reason === r"
            @click="form.reason = form.reason === r ? '' : r"
          >
            {{ r }}
          </button>
        </div>
      </section>
      <div ref="says">
        <p v-if="trouble" class="mx-warn" role="alert">{{ [trouble, ...Object.values(faults)].join(' ') }}</p>
        <p v-else-if="missing" class="quiet" role="status">{{ missing }}</p>
        <p v-else-if="odd" class="mx-warn" role="status">{{ odd }}</p>
      </div>
      <button class="mx-btn primary go" type="button" :disabled="missing !== '' || s.starting.value" @click="start">
        {{ job ? 'Save the correction' : 'Start the job' }}
      </button>
    </template>
  </main>
</template>

<style scoped>
.start {
  display: grid;
  gap: 28px;
}

section {
  display: grid;
  gap: 12px;
}

h2 {
  display: flex;
  align-items: center;
  gap: 12px;
  font-size: 26px;
}

h2 i {
  display: grid;
  place-items: center;
  width: 38px;
  height: 38px;
  border: 3px solid var(--brass);
  border-radius: 50%;
  color: var(--brass);
  font-size: 20px;
  font-style: normal;
}

.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
  gap: 12px;
}

.tile {
  display: grid;
  gap: 4px;
  align-content: start;
  min-height: 84px;
  padding: 12px 18px;
  border: 2px solid var(--line);
  border-radius: 6px;
  background: var(--panel);
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}

.tile > * {
  min-width: 0;
  overflow-wrap: anywhere;
}

.tile b {
  font-size: 21px;
  line-height: 1.2;
}

.tile b::first-letter {
  text-transform: uppercase;
}

.tile.on {
  border-color: var(--brass);
  box-shadow: inset 0 0 0 2px var(--brass);
}

.differs {
  color: var(--undecided);
  font-size: 15px;
}

.fine {
  display: grid;
  gap: 12px;
}

.fine summary {
  min-height: 44px;
  color: var(--quiet);
  cursor: pointer;
}

.fine > * + * {
  margin-top: 12px;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
  gap: 12px;
  margin-top: 8px;
}

.reasons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.picked {
  border-color: var(--brass);
  box-shadow: inset 0 0 0 2px var(--brass);
}

.go {
  justify-self: start;
  min-width: 320px;
  min-height: 72px;
  font-size: 24px;
}
</style>
