<script setup lang="ts">
import { decimal, slip } from '@/shared/decimal'
import { computed, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answered, api, newID, Refused, type Schemas } from '@/shared/api/client'
import PickOne from '@/shared/PickOne.vue'
import StateNote from '@/shared/StateNote.vue'
import TopBar from '@/shared/TopBar.vue'
import { mm } from '@/shared/units'
import NewVehicle from './NewVehicle.vue'

const router = useRouter()
const vehicles = ref<Schemas['Vehicle'][]>([])
const engines = ref<Schemas['Engine'][]>([])
const sets = ref<Schemas['GaugeSet'][]>([])
const loaded = ref(false)
const trouble = ref('')
const adding = ref(false)

const vehicle = ref('')
const card = ref(0)
const set = ref('')
const hotCard = ref(-1)
const cardReason = ref('')
const aim = ref<'nominal' | 'loose'>('nominal')
const aimReason = ref('')
const rule = ref<'workshop' | 'guarded'>('workshop')
const feel = ref(localStorage.getItem('metronix.feel') ?? '0.005')
const mechanic = ref(localStorage.getItem('metronix.mechanic') ?? '')
const reason = ref('')
const odometer = ref<number | null>(null)
const faults = ref<Record<string, string>>({})

async function load() {
  try {
    const [v, e, s] = await Promise.all([
      answered(api.GET('/api/v1/vehicles')),
      answered(api.GET('/api/v1/engines')),
      answered(api.GET('/api/v1/gauge-sets')),
    ])
    vehicles.value = v ?? []
    engines.value = e ?? []
    sets.value = s ?? []
    const last = sets.value.find((x) => x.id === localStorage.getItem('metronix.set'))
    set.value ||= (last ?? sets.value[0])?.id ?? ''
    adding.value = vehicles.value.length === 0
    loaded.value = true
    trouble.value = ''
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
onMounted(load)

const chosen = computed(() => vehicles.value.find((v) => v.id === vehicle.value))
const engine = computed(() => engines.value.find((e) => e.id === chosen.value?.engine_id))
watch(vehicle, () => {
  card.value = 0
  hotCard.value = -1
  odometer.value = chosen.value?.odometer_km || null
})
const reasons = ['Distance interval', 'Ticking when warm', 'Rough idle', 'After a new cam has run in', 'Belt is due']
/** What is still missing before the job can be started; empty when nothing is. */
const missing = computed(() => {
  const km = String(odometer.value ?? '').trim()
  if (!chosen.value) return 'Choose the vehicle.'
  if (!engine.value?.cards?.length) return 'This engine’s sheet has no clearance card: add one first.'
  if (!set.value) return 'Choose the gauge set.'
  if (!mechanic.value.trim()) return 'Say who does the job.'
  if (km && !/^\d{1,7}$/.test(km)) return 'The odometer is a whole number of kilometres, or empty.'
  if (decimal(feel.value) === null) return slip(feel.value)
  return ''
})
const ready = computed(() => !missing.value && !starting.value)
const cards = computed(() => engine.value?.cards ?? [])
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
  { value: 'guarded' as const, title: 'Guarded rule: only when wholly on one side' },
]
watch(card, () => (hotCard.value = -1))
/** Where a card says otherwise than the one chosen. */
const differs = (i: number) => {
  const first = cards.value[0]!
  return i === 0
    ? []
    : cards.value[i]!.differences.map((d) => `${d.what}: ${d.here || '–'} against ${d.first || '–'} (${first.source})`)
}
const window = (l: Schemas['Limits']) => `${mm(l.lower_mm)}–${mm(l.upper_mm)}`

function added(v: Schemas['Vehicle']) {
  adding.value = false
  void load().then(() => (vehicle.value = v.id))
}

// One start is one job, however often it is pressed: the same id until it is answered.
let id = newID()
const starting = ref(false)

async function start() {
  if (starting.value) return
  starting.value = true
  faults.value = {}
  trouble.value = ''
  try {
    await answered(
      api.POST('/api/v1/jobs', {
        body: {
          id,
          vehicle_id: vehicle.value,
          gauge_set_id: set.value,
          card: card.value,
          ...(hotCard.value >= 0 ? { hot_card: hotCard.value } : {}),
          card_reason: cardReason.value.trim(),
          aim: aim.value,
          aim_reason: aimReason.value.trim(),
          rule: rule.value,
          feel_mm: decimal(feel.value) ?? 0.005,
          mechanic: mechanic.value.trim(),
          reason: reason.value,
          odometer_km: decimal(String(odometer.value ?? '')) ?? 0,
        },
      }),
    )
    localStorage.setItem('metronix.mechanic', mechanic.value.trim())
    localStorage.setItem('metronix.feel', feel.value)
    localStorage.setItem('metronix.set', set.value)
    await router.push(`/jobs/${id}`)
    id = newID()
  } catch (e) {
    if (e instanceof Refused)
      faults.value = Object.fromEntries(e.faults.map((f) => [f.location.replace('body.', ''), f.message]))
    trouble.value = (e as Error).message
  } finally {
    starting.value = false
  }
}
</script>

<template>
  <TopBar title="Start a job" back="Board" />
  <main class="page start">
    <StateNote
      v-if="trouble"
      tone="trouble"
      title="That did not work."
      :text="[trouble, ...Object.values(faults)].join(' ')"
    />
    <p v-if="!loaded && !trouble" class="quiet" role="status">Reading vehicles and engines…</p>
    <template v-if="loaded">
      <section>
        <h2><i>1</i> Vehicle</h2>
        <div class="tiles" role="radiogroup" aria-label="Vehicle">
          <button
            v-for="v in vehicles"
            :key="v.id"
            type="button"
            role="radio"
            class="tile"
            :class="{ on: v.id === vehicle }"
            :aria-checked="v.id === vehicle"
            @click="((vehicle = v.id), (adding = false))"
          >
            <b>{{ v.name }}</b><span class="quiet">{{ v.plate }} · {{ v.engine_name }}</span>
          </button>
          <button type="button" class="tile new" :class="{ on: adding }" @click="((adding = true), (vehicle = ''))">
            <b>Another vehicle</b><span class="quiet">enter it, or import its engine sheet</span>
          </button>
        </div>
        <NewVehicle v-if="adding" :engines="engines" @added="added" @imported="load" />
      </section>
      <section v-if="engine">
        <h2><i>2</i> Figures</h2>
        <p v-if="!engine.cards?.length" class="quiet">
          The sheet of {{ engine.name }} has no clearance card. Import a sheet that has one.
        </p>
        <div class="tiles" role="radiogroup" aria-label="Clearance card">
          <button
            v-for="(c, i) in engine.cards ?? []"
            :key="i"
            type="button"
            role="radio"
            class="tile"
            :class="{ on: card === i }"
            :aria-checked="card === i"
            @click="card = i"
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
          v-model="cardReason"
          label="Why this card (the sheet shows it)"
          maxlength="200"
          hide-details
        />
        <PickOne
          v-if="cards[card]?.state === 'cold' && hotCards.length"
          v-model="hotCard"
          label="Hot pass"
          :options="passes"
        />
        <details class="fine">
          <summary>Aim, rule and feel</summary>
          <PickOne v-model="aim" label="Aim" :options="aims" />
          <VTextField
            v-if="aim === 'loose'"
            v-model="aimReason"
            label="Why the loose end"
            maxlength="200"
            hide-details
          />
          <PickOne v-model="rule" label="Rule" :options="rules" />
          <VTextField
            v-model="feel"
            label="Uncertainty of your feel, either way"
            suffix="mm"
            inputmode="decimal"
            hide-details
            :error="Boolean(faults.feel_mm)"
          />
        </details>
      </section>
      <section v-if="engine">
        <h2><i>3</i> Leaves, hands and reason</h2>
        <div class="tiles" role="radiogroup" aria-label="Gauge set">
          <button
            v-for="s in sets"
            :key="s.id"
            type="button"
            role="radio"
            class="tile"
            :class="{ on: set === s.id }"
            :aria-checked="set === s.id"
            @click="set = s.id"
          >
            <b>{{ s.name }}</b><span class="quiet">{{ s.leaves }} leaves</span>
          </button>
        </div>
        <div class="fields">
          <VTextField v-model="mechanic" label="Mechanic" maxlength="100" :error-messages="faults.mechanic" />
          <VTextField
            v-model.number="odometer"
            label="Odometer, km"
            type="number"
            min="0"
            :error-messages="faults.odometer_km"
          />
        </div>
        <div class="reasons" role="radiogroup" aria-label="Reason">
          <button
            v-for="r in reasons"
            :key="r"
            type="button"
            role="radio"
            class="mx-btn small"
            :class="{ picked: reason === r }"
            :aria-checked="reason === r"
            @click="reason = reason === r ? '' : r"
          >
            {{ r }}
          </button>
        </div>
      </section>
      <p v-if="missing" class="quiet" role="status">{{ missing }}</p>
      <p v-else-if="trouble" class="mx-warn" role="alert">{{ trouble }}</p>
      <button class="mx-btn primary go" type="button" :disabled="!ready" @click="start">Start the job</button>
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

.tile b {
  font-size: 21px;
  line-height: 1.2;
}

.tile b::first-letter {
  text-transform: uppercase;
}

.tile.new {
  border-style: dashed;
  background: none;
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
