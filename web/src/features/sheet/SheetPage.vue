<script setup lang="ts">
import AppPage from '@/shared/AppPage.vue'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import type { Judgement, Schemas } from '@/shared/api/client'
import { reads, useRead } from '@/shared/api/reads'
import { figureOf } from '@/shared/engine/figure'
import HeadDrawing, { type ValveShown } from '@/shared/engine/HeadDrawing.vue'
import VerdictGlyph from '@/shared/VerdictGlyph.vue'
import { handOf } from '@/shared/hand'
import { mine } from '@/shared/mine'
import { phaseName } from '@/shared/phases'
import { gaps, mm, thou } from '@/shared/units'
import AddDialog from './AddDialog.vue'
import AroundSection from './AroundSection.vue'
import DeferDialog from './DeferDialog.vue'
import { aimSaid, aimings, checkRounds, kindsFirst, orderName, rounds, ruleSaid, verdictOf } from '@/shared/words'

const id = String(useRoute().params.id)
const { data: view, trouble, again } = useRead(reads.job(id))

const state = computed(() => view.value!.state)
const shown = computed<Record<string, ValveShown>>(() =>
  Object.fromEntries(
    state.value.valves.map((v) => [
      v.name,
      {
        figure: figureOf(v.last?.judgement, v.limits.in_thou),
        inThou: v.limits.in_thou,
        stale: Boolean(v.last?.stale),
        verdict: v.last?.judgement.verdict ?? null,
        settable: true,
        here: false,
        chosen: false,
      },
    ]),
  ),
)
const rows = computed(() =>
  state.value.valves.map((v) => ({ v, kind: view.value!.engine.valves.find((x) => x.name === v.name)!.kind })),
)
const window = (l: Schemas['Limits']) =>
  `${gaps(l.in_thou).window(l)} ${gaps(l.in_thou).unit}${l.nominal_only ? ' (no limits in the source)' : ''}`
const what = (v: Schemas['ValveState']) =>
  (v.freed ? 'freed before any was set; ' : '') +
  (v.set_for ? `set though in (${v.set_for}); ` : '') +
  (v.cold_reason ? `left as it was cold: ${v.cold_reason}; ` : '') +
  done(v)
const done = (v: Schemas['ValveState']) =>
  v.left
    ? `${v.last ? 'left as it is' : 'not read'}: ${v.left}`
    : v.adjusted > 1
      ? `set ${v.adjusted} times`
      : v.adjusted
        ? 'set'
        : v.last
          ? 'left alone'
          : v.outside
            ? 'not of this job'
            : 'not read'
/** How the engine was gone round, and what was checked. */
const goes = computed(() => {
  const said = (list: { value: string; title: string }[], value: string) =>
    list.find((c) => c.value === value)!.title.toLowerCase()
  const { round, check, one_kind_first: first, aiming, scope, valves } = state.value
  return [
    said(rounds, round),
    ...(round === 'read_only' ? [] : [said(checkRounds, check)]),
    ...(aiming === 'leave_in' ? [] : [said(aimings, aiming)]),
    ...(first === 'both' ? [] : [said(kindsFirst, first)]),
    ...(scope && scope.length < valves.length ? [`${scope.length} of ${valves.length} valves`] : []),
  ].join(', ')
})
/** The engine's temperature, or how it was judged cold. */
const heat = computed(() => {
  const { engine_c, ambient_c, cold_by, cold_pass_by } = state.value
  const around = ambient_c == null ? '' : `, ambient ${warmth.say(ambient_c)}`
  const now = cold_by
    ? `judged cold: ${cold_by}${around}`
    : engine_c === null
      ? 'not taken'
      : `engine ${warmth.say(engine_c)}${around}`
  return cold_pass_by ? `${now}; cold pass judged cold: ${cold_pass_by}` : now
})
const deferring = ref(false)
const adding = ref<'amended' | 'countersigned'>('amended')
const addOpen = ref(false)
const mayDefer = computed(() => !['choose_way', 'await_hot', 'done'].includes(state.value.phase))
const mayBeClose = ({ verdict, sure, figure }: Judgement) =>
  verdict !== 'undecided' && !sure && !['looser', 'tighter'].includes(figure.kind)
const warmth = mine('temperature')
const unit = computed(() => gaps(state.value.card.intake.in_thou).unit)
const count = (verdict: string) => state.value.valves.filter((v) => v.as_found?.judgement.verdict === verdict).length
const date = (iso: string | null) =>
  iso ? new Date(iso).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short', hour12: false }) : ''
const print = () => globalThis.print()
</script>

<template>
  <AppPage
    :title="view ? `Sheet of ${view.vehicle.name}` : 'Sheet'"
    :back="view && state.phase !== 'done' ? 'Bench' : 'Board'"
    :back-to="view && state.phase !== 'done' ? `/jobs/${id}` : '/'"
    bare
    :ready="view !== undefined"
    :trouble="trouble"
    failed="This sheet could not be read."
    waiting="Reading the sheet…"
    @again="again"
  >
    <template #bar>
      <VBtn v-if="view && state.plan" size="small" :to="`/jobs/${id}/card`">Windscreen card</VBtn>
      <VBtn v-if="view && mayDefer" size="small" @click="deferring = true">Put the job off…</VBtn>
      <template v-if="view && state.phase === 'done'">
        <VBtn size="small" @click="((adding = 'amended'), (addOpen = true))">Add a correction…</VBtn>
        <VBtn v-if="!state.countersigned" size="small" @click="((adding = 'countersigned'), (addOpen = true))"
          >Countersign…</VBtn
        >
      </template>
      <VBtn v-if="view" size="small" :href="`/api/v1/jobs/${id}/report.pdf`" target="_blank">PDF</VBtn>
      <VBtn v-if="view" variant="flat" size="small" @click="print">Print</VBtn>
    </template>
    <main v-if="view" class="page sheet">
      <header>
        <div>
          <h1>{{ view.vehicle.name }}</h1>
          <p class="quiet">
            {{ view.vehicle.plate }} · {{ view.engine.name }} · firing order
            {{ (view.engine.firing_order ?? []).join('-') }}
          </p>
        </div>
        <p class="seal" :class="{ done: state.phase === 'done' }">
          <template v-if="state.phase === 'done'"
            ><b>Signed by {{ state.signed_by }}</b> {{ date(state.signed_at)
            }}<em v-if="state.outcome">{{ state.outcome }}</em></template
          >
          <template v-else-if="state.phase === 'await_hot'"
            ><b>Signed cold by {{ state.signed_by }}, provisionally</b> the hot pass is waiting</template
          >
          <template v-else
            ><b>Not signed yet</b> {{ phaseName(state.phase) }}, {{ state.done }} of {{ state.total }}</template
          >
        </p>
      </header>
      <dl class="facts">
        <div>
          <dt>Limits</dt>
          <dd>
            {{ state.card.state }}, {{ state.card.source }}{{ state.card.date ? ` (${state.card.date})` : '' }}: intake
            <span class="figure">{{ window(state.card.intake) }}</span>, exhaust
            <span class="figure">{{ window(state.card.exhaust) }}</span><template v-if="view.card_reason"
              >. Chosen because: {{ view.card_reason }}</template
            >
          </dd>
        </div>
        <div>
          <dt>Temperature</dt>
          <dd>
            {{ heat
            }}<b v-for="o in state.overrides" :key="o.at" class="override"
              >. Gate overridden: {{ o.reason }} ({{ o.hot ? 'hot pass' : 'cold' }}, {{ warmth.say(o.engine_c) }},
              {{ date(o.at) }})</b
            >
          </dd>
        </div>
        <div>
          <dt>Sequence</dt>
          <dd>
            {{ state.plan ? `${state.plan.title}, ${orderName(state.plan.order)}; ${goes}` : 'not chosen'
            }}<b v-if="state.back_reason" class="override">. Turned back against the sheet: {{ state.back_reason }}</b>
          </dd>
        </div>
        <div>
          <dt>Leaves</dt>
          <dd>{{ view.gauge_name }}, feel ± {{ mine('length').both(view.feel_mm) }}</dd>
        </div>
        <div>
          <dt>Aim</dt>
          <dd>{{ aimSaid(view.aim, view.aim_reason) }}</dd>
        </div>
        <div v-if="state.cold">
          <dt>Cold start</dt>
          <dd>signed by {{ state.cold.by }}, {{ date(state.cold.at) }}, provisionally</dd>
        </div>
        <div>
          <dt>Odometer</dt>
          <dd>{{ view.odometer_km ? mine('distance').both(view.odometer_km) : 'none' }}</dd>
        </div>
        <div>
          <dt>Reason</dt>
          <dd>{{ view.reason || 'not given' }} · {{ view.mechanic }}, {{ date(view.created_at) }}</dd>
        </div>
      </dl>
      <p class="found">
        As found: <b>{{ count('in') }} in</b>, {{ count('tight') }} tight, {{ count('loose') }} loose,
        {{ count('undecided') }} undecided. {{ state.valves.filter((v) => v.adjusted).length }} set,
        {{ state.valves.filter((v) => v.verified).length }} checked after two turns.
      </p>
      <AroundSection :state="state" />
      <div class="drawing" tabindex="0" aria-label="The head, drawn with the figures as left">
        <HeadDrawing :engine="view.engine" :crank="null" :shown="shown" />
      </div>
      <div class="table" tabindex="0" role="region" aria-label="All valves">
        <VTable density="compact">
          <thead>
            <tr>
              <th>Valve</th>
              <th>Limits, {{ unit }}</th>
              <th v-if="state.cold">Cold start, {{ unit }}</th>
              <th>As found, {{ unit }}</th>
              <th>As left, {{ unit }}</th>
              <th>What was done</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="{ v, kind } in rows" :key="v.name">
              <th scope="row">
                {{ v.name }} <small class="quiet">{{ kind }}</small>
              </th>
              <td class="figure">{{ gaps(v.limits.in_thou).window(v.limits) }}</td>
              <td v-for="(r, i) in [...(state.cold ? [v.cold_left] : []), v.as_found, v.last]" :key="i">
                <span v-if="r" class="reading">
                  <b class="figure">{{ figureOf(r?.judgement, v.limits.in_thou) }}</b>
                  <small v-if="r.judgement.estimate_mm !== null" class="quiet">{{
                    v.limits.in_thou ? `${mm(r.judgement.estimate_mm)} mm` : thou(r.judgement.estimate_mm)
                  }}</small>
                  <VerdictGlyph :verdict="r.judgement.verdict" /> {{ verdictOf(r.judgement)
                  }}<small v-if="mayBeClose(r.judgement)" class="quiet">close</small
                  ><small v-if="r.off_aim" class="quiet">off the aim</small
                  ><small v-if="r.stale" class="quiet">too late – re-check hot</small
                  ><small v-if="r.time_doubtful" class="override">time in doubt</small>
                </span>
                <span v-else class="quiet">–</span>
              </td>
              <td>
                {{ what(v)
                }}<template v-if="v.locked_by"
                  >, nut {{ v.locked_by === 'feel' ? 'by feel' : 'to its torque' }}</template
                ><template v-if="v.shim_mm"
                  >, shim {{ mm(v.shim_mm)
                  }}{{ v.shim_stamped_mm ? ` (stamped ${mm(v.shim_stamped_mm)})` : '' }}</template
                ><template v-if="v.verified">, checked</template>
              </td>
            </tr>
          </tbody>
        </VTable>
      </div>
      <p class="files">
        <a :href="`/api/v1/jobs/${id}/report.pdf`">PDF, A4</a>
        <a :href="`/api/v1/jobs/${id}/report.pdf?paper=letter`">PDF, letter</a>
        <a :href="`/api/v1/jobs/${id}/report.csv`">CSV</a>
        <a :href="`/api/v1/jobs/${id}/report.json`">JSON</a>
      </p>
      <p class="quiet foot">
        {{ ruleSaid[view.rule] }}
        Limits inclusive. “Close” means that a limit lies within the uncertainty of leaf and feel. The maker’s book and
        local rules win over any figure here.
      </p>
    </main>
  </AppPage>
  <AddDialog v-if="view" v-model="addOpen" :job="id" :what="adding" @done="again" />
  <DeferDialog v-if="view && mayDefer" v-model="deferring" :job="id" :mechanic="handOf(view)" @done="again" />
</template>

<style scoped>
.seal em {
  display: block;
}

.override {
  color: var(--undecided);
}

.sheet {
  display: grid;
  gap: 18px;
}

header {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  justify-content: space-between;
  gap: 12px;
}

h1 {
  font-size: 36px;
  line-height: 1.1;
}

.seal {
  padding: 10px 18px;
  border: 3px dashed var(--undecided);
  color: var(--undecided);
}

.seal.done {
  border: 3px solid var(--in);
  color: var(--in);
}

.seal b {
  display: block;
  font-size: 22px;
}

.facts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 10px 26px;
  margin: 0;
}

dt {
  color: var(--quiet);
  font-size: 15px;
}

dd {
  margin: 0;
}

.found {
  font-size: 21px;
}

.drawing {
  overflow-x: auto;
}

.drawing :deep(svg) {
  min-width: 640px;
  max-height: 420px;
}

.table {
  overflow-x: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

thead th {
  color: var(--quiet);
  font-size: 15px;
  font-weight: 400;
  text-align: left;
}

th,
td {
  padding: 9px 12px;
  border-bottom: 1px solid var(--line);
  text-align: left;
  white-space: nowrap;
}

tbody th {
  font-size: 22px;
}

tbody th small {
  font-size: 15px;
  font-weight: 400;
}

.reading {
  display: inline-flex;
  align-items: center;
  gap: 8px;
}

.reading b {
  font-size: 22px;
}

.foot {
  font-size: 15px;
}

.files {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
}

.files a {
  justify-content: center;
  min-width: 44px;
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}

@media print {
  .files {
    display: none;
  }

  .sheet {
    gap: 8px;
    padding: 0;
    max-width: none;
  }

  .drawing :deep(svg) {
    max-height: 190px;
  }

  th,
  td {
    padding: 3px 8px;
  }

  tbody th,
  .reading b,
  .found {
    font-size: 13px;
  }
}
</style>
