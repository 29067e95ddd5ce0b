<script setup lang="ts">
import { mine } from '@/shared/mine'
import AppPage from '@/shared/AppPage.vue'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { readOnce, reads, useRead } from '@/shared/api/reads'
import type { EngineView, JobView, PlanView } from '@/shared/api/client'
import { layOut } from '@/shared/engine/headLayout'
import { octagon } from '@/shared/engine/shapes'
import StateNote from '@/shared/StateNote.vue'
import { degrees, gaps } from '@/shared/units'

const route = useRoute()
const id = String(route.params.id)
const job = route.name === 'job-card'
/** What the card is made of: a job and its own sequence, or an engine and the sequence asked for. */
async function read(): Promise<{ view?: JobView; engine: EngineView; plan: PlanView | null }> {
  if (job) {
    const view = await readOnce(reads.job(id))
    return { view, engine: view.engine, plan: view.state.plan ?? null }
  }
  const q = route.query
  const ways = await readOnce(
    reads.ways(
      { engine: id },
      {
        direction: q.direction === 'back' ? 'back' : 'running',
        positions: q.positions === 'marks' ? 'marks' : 'any',
        stops: Number(q.stops) || 0,
      },
    ),
  )
  const fits = ways.plans.filter((p) => p.applies)
  const asked = fits.find((p) => p.school === q.school && (!q.order || p.order === q.order))
  if (q.school && !asked)
    throw new Error(`No sequence called “${String(q.school)}” fits this engine here. Choose one under Sequences.`)
  return { engine: ways.engine, plan: asked ?? fits[0] ?? null }
}
const { data, trouble, again } = useRead({ queryKey: ['card', job, id, route.query], queryFn: read })
const view = computed(() => data.value?.view)
const engine = computed(() => data.value?.engine)
const plan = computed(() => data.value?.plan ?? null)

const layout = computed(() => (engine.value ? layOut(engine.value) : null))
const stopOf = computed(() => {
  const out: Record<string, number> = {}
  plan.value?.stops.forEach((s, i) => s.valves.forEach((v) => (out[v] = i + 1)))
  return out
})
const limits = computed(() =>
  view.value
    ? (['intake', 'exhaust'] as const).map((k) => {
        const l = view.value!.card[k]
        const [first, other] = [gaps(l.in_thou), gaps(!l.in_thou)]
        return `${k} ${first.window(l)} ${first.unit} (${other.window(l)} ${other.unit})`
      })
    : [],
)
const print = () => globalThis.print()
</script>

<template>
  <AppPage
    title="Windscreen card"
    :back="job ? 'Bench' : 'Sequences'"
    :back-to="job ? `/jobs/${id}` : `/engines/${id}/ways`"
    bare
    :ready="Boolean(engine && layout)"
    :trouble="trouble"
    failed="The card could not be made."
    waiting="Making the card…"
    @again="again"
  >
    <template #bar>
      <VBtn v-if="plan" variant="flat" size="small" @click="print">Print</VBtn>
    </template>
    <main v-if="engine && layout" class="page">
      <StateNote v-if="!plan" title="No sequence is chosen yet." text="The card shows its stops: choose one first.">
        <VBtn variant="flat" :to="job ? `/jobs/${id}` : `/engines/${id}/ways`">Choose the sequence</VBtn>
      </StateNote>
      <article v-else class="card">
        <header class="d-flex justify-space-between ga-6">
          <div>
            <h1 class="fs-34 lh-none">{{ view?.vehicle.name ?? engine.name }}</h1>
            <p>
              <template v-if="view">{{ view.vehicle.plate }} · {{ engine.name }} · {{ view.mechanic }}</template>
              <template v-else>Firing order {{ engine.firing_order.join('-') }}</template>
            </p>
          </div>
          <p class="way text-right">
            <b class="fs-22">{{ plan.title }}</b><br />{{ plan.stops.length }} stops, {{ degrees(plan.total_turn_deg!)
            }}{{ plan.direction === 'back' ? ', turned back' : '' }}
          </p>
        </header>
        <p v-if="view" class="limits">
          <b>{{ view.card.state }}</b>, {{ view.card.source }}: {{ limits.join(', ') }}
        </p>
        <svg
          class="map w-100"
          :viewBox="`0 0 ${layout.width} ${layout.height}`"
          role="img"
          aria-label="A box for each valve in engine position, with its stop"
        >
          <g v-for="b in layout.banks" :key="b.name">
            <rect
              class="casting f-none s-edge sw-2"
              :x="b.x"
              :y="b.y + 1"
              :width="b.width"
              :height="b.height - 2"
              rx="8"
            />
            <text v-if="b.top" class="side fs-16 anchor-middle f-quiet" :x="b.x + 4" :y="b.y - 9">
              {{ b.top }}
            </text>
            <text v-if="b.bottom" class="side fs-16 anchor-middle f-quiet" :x="b.x + 4" :y="b.y + b.height + 20">
              {{ b.bottom }}
            </text>
            <text class="side front fs-16 anchor-middle f-quiet" :x="38" :y="b.y + b.height / 2">front</text>
          </g>
          <text
            v-for="c in layout.cylinders"
            :key="c.number"
            class="number font-weight-bold anchor-middle f-quiet fs-28"
            :x="c.x"
            :y="c.y"
          >
            {{ c.number }}
          </text>
          <g v-for="v in layout.valves" :key="v.name" :transform="`translate(${v.x} ${v.y - 20})`">
            <circle v-if="v.kind === 'intake'" class="f-none s-ink sw-3" r="30" />
            <path v-else class="f-none s-ink sw-3" :d="octagon(30)" />
            <text class="name fs-20 font-weight-bold f-ink anchor-middle" y="7">{{ v.name }}</text>
            <text class="stop fs-20 f-ink anchor-middle" y="58">stop {{ stopOf[v.name] }}</text>
            <rect class="f-none s-ink sw-3" x="-15" y="70" width="30" height="30" />
          </g>
        </svg>
        <ol class="stops d-grid gr-1 gc-6 ma-0 pa-0 list-none">
          <li v-for="(s, i) in plan.stops" :key="i" class="d-grid ga-2 align-baseline py-1 px-0">
            <b>{{ i + 1 }}</b>
            <span>{{ s.how }} until {{ s.until }}</span>
            <strong class="fs-20">{{ s.valves.join(' ') }}</strong>
          </li>
        </ol>
        <footer class="fs-15">
          <p v-if="view && view.engine.locknut_torque_nm">
            Lock nut {{ mine('torque').both(view.engine.locknut_torque_nm) }}.
          </p>
          <p v-for="c in plan.cautions" :key="c">{{ c }}</p>
          <p v-for="a in plan.assumed" :key="a">Assumed: {{ a }}</p>
          <p>
            All tools and leaves accounted for ☐ &nbsp; Socket off the crank ☐ &nbsp; Who, when: ______________________
          </p>
          <p>The maker’s book and local rules win over any figure here.</p>
        </footer>
      </article>
    </main>
  </AppPage>
</template>

<style scoped>
.card {
  display: grid;
  gap: 14px;
  max-width: 940px;
  margin: 0 auto;
  padding: 24px;
  border: 2px solid var(--line);
  border-radius: 6px;
  background: var(--panel);
}

.limits::first-letter {
  text-transform: uppercase;
}

.map {
  max-height: 480px;
  font-family: var(--words);
}

.side {
  text-anchor: start;
}

.front {
  text-anchor: middle;
}

.stops {
  grid-template-columns: repeat(auto-fill, minmax(400px, 1fr));
}

.stops li {
  grid-template-columns: 32px 1fr auto;
  border-bottom: 1px solid var(--line);
}

footer {
  line-height: 1.35;
}

@media (width <= 560px) {
  .card {
    padding: 12px;
  }

  header {
    display: grid;
  }

  .way {
    text-align: left;
  }

  .stops {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media print {
  .page {
    max-width: none;
    padding: 0;
  }

  .card {
    max-width: none;
    padding: 0;
    border: 0;
    font-size: 13px;
  }

  .map {
    max-height: 120mm;
  }

  .stops {
    grid-template-columns: 1fr 1fr;
  }

  footer {
    font-size: 11px;
  }
}
</style>
