<script setup lang="ts">
import { computed } from 'vue'
import type { JobView, Schemas } from '@/shared/api/client'
import { mine } from '@/shared/mine'
import { gaps } from '@/shared/units'
import { aimSaid } from '@/shared/words'

/** What a job was done by: limits, temperature, sequence, leaves, aim, odometer, reason, and who. */
const props = defineProps<{ view: JobView }>()
const state = computed(() => props.view.state)
const window = (l: Schemas['Limits']) =>
  `${gaps(l.in_thou).window(l)} ${gaps(l.in_thou).unit} (${gaps(!l.in_thou).window(l)} ${gaps(!l.in_thou).unit})${l.nominal_only ? ' (no limits in the source)' : ''}`
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
        {{ state.told.warmth }}
      </dd>
    </div>
    <div>
      <dt>Sequence</dt>
      <dd>
        {{ state.told.walk }}
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
      <dd>signed by {{ state.cold.by }}, {{ date(state.cold.at) }}, provisionally; {{ state.told.cold_warmth }}</dd>
    </div>
    <div>
      <dt>Odometer</dt>
      <dd>
        {{ view.odometer_km ? mine('distance').both(view.odometer_km) : '–'
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
