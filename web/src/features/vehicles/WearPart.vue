<script setup lang="ts">
import { computed } from 'vue'
import type { EngineView, Schemas } from '@/shared/api/client'
import HeadDrawing, { type ValveShown } from '@/shared/engine/HeadDrawing.vue'
import FoldAway from '@/shared/FoldAway.vue'
import { counter, meterName, mine } from '@/shared/mine'
import WearChart from './WearChart.vue'
import { foreseen } from './wearChart'

/** How a vehicle's valves wear: which one decides, how fast each moves, and when it leaves its limits. */
const props = defineProps<{ history: Schemas['VehicleHistory']; engine: EngineView }>()

const wear = computed(() => props.history.wear)
const run = computed(() => mine(counter(props.history.vehicle.counts)))
const at = (n: number) => run.value.say(Math.floor(n))
/** Gaps in this person's unit; what no card gives in inches is told in millimetres. */
const gap = mine('length')

/** How fast a valve moves, in thousandths of a millimetre or of an inch over 1,000 km, miles or hours: what fits under a valve. */
const inThou = computed(() => gap.unit() === 'thou')
const over = computed(() => `1,000 ${run.value.unit()}`)
const moves = (w: Schemas['ValveWear']) =>
  ((w.rate_mm_per_1000 ?? 0) * run.value.kept(1000)) / 1000 / (inThou.value ? 0.0254 : 0.001)
const rate = (w: Schemas['ValveWear']) => {
  if (w.rate_mm_per_1000 === null) return ''
  if (!w.differs) return 'steady' // no more than readings of a valve that stands still would show
  const moved = moves(w)
  return `${moved > 0 ? '↗ +' : moved < 0 ? '↘ −' : ''}${Math.abs(moved).toFixed(inThou.value ? 2 : 1)}`
}
const last = computed(() => props.history.visits.at(-1))
const shown = computed<Record<string, ValveShown>>(() =>
  Object.fromEntries(
    props.engine.valves.map((v) => {
      const w = wear.value.find((x) => x.valve === v.name)
      return [
        v.name,
        {
          figure: w ? rate(w) : '',
          verdict: null, // a trend is no verdict: it has its own arrow and word
          settable: true,
          here: false,
          chosen: Boolean(w?.odd),
        },
      ]
    }),
  ),
)
/** Between which figures of its counter a valve leaves its limits; nothing where it was left outside already. */
const between = ({ range, out }: Schemas['ValveWear']) => {
  const [early, late] = range ?? [null, null]
  if (out || early === null || early === undefined) return ''
  if (typeof late === 'number' && at(early) === at(late)) return ''
  return typeof late === 'number' ? `between ${at(early)} and ${at(late)}` : `not before ${at(early)}`
}
/** Whether how fast a valve moves is known of any. */
const rated = computed(() => wear.value.some((w) => w.rate_mm_per_1000 !== null))
const first = computed(() => wear.value.find((w) => w.leaves_at !== null))
const odd = computed(() => wear.value.filter((w) => w.odd).map((w) => w.valve))
const leftOf = (valve: string) => last.value?.valves.find((v) => v.valve === valve)
</script>

<template>
  <section class="wear d-grid ga-3">
    <h2 class="fs-28 lh-tight">Valve wear</h2>
    <p v-if="first" class="lead fs-20">
      {{ first.valve }}
      {{
        first.out
          ? 'was left outside its limits'
          : `goes ${first.side} first, at about ${at(foreseen(first.leaves_at!, history.vehicle.counts))}`
      }}<template v-if="between(first)">, {{ between(first) }}</template
      >.
    </p>
    <p v-else-if="!rated" class="lead fs-20">
      How fast its valves move is told from two visits on at which the {{ meterName(history.vehicle.counts) }} was read.
    </p>
    <p v-else class="lead fs-20">No valve moves by more than its readings differ anyway: steady.</p>
    <VAlert v-if="odd.length" role="note">
      {{ odd.join(', ') }} {{ odd.length === 1 ? 'wears' : 'wear' }} unlike the rest: look for the cause.
    </VAlert>
    <WearChart v-if="history.counted > 1" :visits="history.visits" :wear="wear" :counts="history.vehicle.counts" />
    <p v-if="rated" class="quiet">
      Thousandths of {{ inThou ? 'an inch' : 'a millimetre' }} per {{ over }}, from {{ history.counted }}
      {{ history.counted === 1 ? 'visit' : 'visits' }}; minus closes (the valve sinks into its seat), plus opens.
    </p>
    <div
      v-if="rated"
      class="drawing overflow-x-auto"
      tabindex="0"
      aria-label="The head, drawn with how fast each valve wears"
    >
      <HeadDrawing :engine="engine" :crank="null" :shown="shown" />
    </div>
    <FoldAway title="Every valve">
      <div class="table overflow-x-auto" tabindex="0" role="region" aria-label="Wear of every valve">
        <VTable density="compact">
          <thead>
            <tr>
              <th>Valve</th>
              <th>Left, {{ gap.unit() }}</th>
              <th>Limits, {{ gap.unit() }}</th>
              <th>per {{ over }}, {{ inThou ? 'thou' : 'µm' }}</th>
              <th>Leaves its limits</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="w in wear" :key="w.valve">
              <th scope="row">{{ w.valve }}</th>
              <td class="figure">
                {{ leftOf(w.valve)?.left_mm != null ? gap.bare(leftOf(w.valve)!.left_mm!) : '–' }}
              </td>
              <td class="figure">
                {{
                  leftOf(w.valve)
                    ? `${gap.bare(leftOf(w.valve)!.lower_mm)}–${gap.bare(leftOf(w.valve)!.upper_mm)}`
                    : '–'
                }}
              </td>
              <td class="figure">
                {{ rate(w) || 'not known' }}
              </td>
              <td>
                {{
                  w.out
                    ? 'out now'
                    : w.leaves_at === null
                      ? between(w) || 'not foreseen'
                      : `${at(w.leaves_at)}, ${w.side}`
                }}
              </td>
            </tr>
          </tbody>
        </VTable>
      </div>
    </FoldAway>
  </section>
</template>

<style scoped>
.drawing :deep(svg) {
  min-width: 640px;
  max-height: 400px;
}
</style>
