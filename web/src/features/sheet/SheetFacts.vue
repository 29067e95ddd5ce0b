<script setup lang="ts">
import { computed } from 'vue'
import type { JobView, Schemas } from '@/shared/api/client'
import { mine } from '@/shared/mine'
import { gaps } from '@/shared/units'
import { aimSaid, aimings, checkRounds, kindsFirst, orderName, rounds } from '@/shared/words'

/** What a job was done by: limits, temperature, sequence, leaves, aim, odometer, reason, and who. */
const props = defineProps<{ view: JobView }>()
const state = computed(() => props.view.state)
const warmth = mine('temperature')
const window = (l: Schemas['Limits']) =>
  `${gaps(l.in_thou).window(l)} ${gaps(l.in_thou).unit} (${gaps(!l.in_thou).window(l)} ${gaps(!l.in_thou).unit})${l.nominal_only ? ' (no limits in the source)' : ''}`
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
const date = (iso: string | null) =>
  iso ? new Date(iso).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short', hour12: false }) : ''
</script>

<template>
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
      <dd>
        {{ view.odometer_km ? mine('distance').both(view.odometer_km) : 'none'
        }}{{ view.odometer_why ? `, less than before: ${view.odometer_why}` : '' }}
      </dd>
    </div>
    <div>
      <dt>Reason</dt>
      <dd>{{ view.reason || 'not given' }} · {{ view.mechanic }}, {{ date(view.created_at) }}</dd>
    </div>
  </dl>
</template>

<style scoped>
.override {
  color: var(--undecided);
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
</style>
