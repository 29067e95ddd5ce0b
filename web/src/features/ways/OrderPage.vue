<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { answered, api } from '@/shared/api/client'
import { reads, useRead } from '@/shared/api/reads'
import AppPage from '@/shared/AppPage.vue'
import HeadDrawing, { type ValveShown } from '@/shared/engine/HeadDrawing.vue'
import { day, degrees } from '@/shared/units'
import { useDraft } from '@/shared/useDraft'
import { tapCylinder, tapValve } from './orderText'

/** Is this order right: any order, typed or tapped, proved valve by valve against the sheet, and a page to hand on. */
const route = useRoute()
const id = String(route.params.id)
const job = route.name === 'job-order'
const { data: ways, trouble, again } = useRead(reads.ways(job ? { job: id } : { engine: id }))
const engine = computed(() => ways.value?.engine)

const text = ref('')
const from = ref('')
useDraft(
  `order.${id}`,
  () => (text.value || from.value ? { text: text.value, from: from.value } : null),
  (kept) => {
    text.value = kept.text
    from.value = kept.from
  },
).restore()
const written = refDebounced(text, 300)
const path = { params: { path: { id } } }
const { data: proof, trouble: unproved } = useRead(
  computed(() => {
    const body = { text: written.value }
    return {
      queryKey: ['order', job, id, body],
      queryFn: () =>
        answered(
          job
            ? api.POST('/api/v1/jobs/{id}/prove-order', { ...path, body })
            : api.POST('/api/v1/engines/{id}/prove-order', { ...path, body }),
        ),
    }
  }),
)
const shown = computed<Record<string, ValveShown>>(() => {
  const valves = (proof.value?.stops ?? []).flatMap((s) => s.valves)
  return Object.fromEntries(
    (engine.value?.valves ?? []).map((v) => {
      const at = valves.filter((x) => x.valve === v.name).sort((a, b) => a.margin_deg - b.margin_deg)[0]
      return [
        v.name,
        {
          figure: at ? degrees(Math.round(at.margin_deg)) : '',
          verdict: at ? (at.short_deg > 0 ? 'tight' : 'in') : null,
          settable: true,
          here: false,
          chosen: Boolean(at && at.short_deg > 0),
        },
      ]
    }),
  )
})
const print = () => globalThis.print()
</script>

<template>
  <AppPage
    title="Is this order right?"
    :sub="engine?.name"
    back="Sequences"
    :back-to="job ? `/jobs/${id}/ways` : `/engines/${id}/ways`"
    :ready="engine !== undefined"
    :trouble="trouble"
    failed="This engine could not be read."
    @again="again"
  >
    <template #bar>
      <VBtn v-if="proof?.stops.length" variant="flat" size="small" @click="print">Print</VBtn>
    </template>
    <div v-if="engine" class="order d-grid ga-5">
      <section class="d-grid ga-3 write">
        <VTextField v-model="from" label="Where it is from" placeholder="a printed card" maxlength="100" hide-details />
        <VTextarea
          v-model="text"
          label="The order, a line a stop"
          placeholder="4 rocks: 1&#10;2 rocks: I3 E3&#10;E1 down: I3, E4"
          rows="6"
          auto-grow
          maxlength="4000"
          persistent-placeholder
          hide-details
          class="figure"
        />
        <p class="quiet">
          Type it, or tap: a cylinder begins a stop where it rocks, a valve is set there. A place may be written as “4
          rocks”, “1 TDC”, “E1 down”, “valve 8 down”, “E1 opens” or “180°”.
        </p>
      </section>
      <h2 v-if="proof" class="says fs-26 lh-tight" role="status" :class="proof.right ? 'right' : 'wrong'">
        {{ proof.says }}
      </h2>
      <div class="drawing overflow-x-auto" tabindex="0" aria-label="The head: tap a cylinder or a valve">
        <HeadDrawing
          :engine="engine"
          :crank="null"
          :shown="shown"
          pickable="all"
          cylinders-pickable
          @pick="(v) => (text = tapValve(text, v))"
          @pick-cylinder="(n) => (text = tapCylinder(text, n))"
        />
      </div>
      <VAlert v-if="unproved" role="alert">{{ unproved }}</VAlert>
      <template v-if="proof">
        <p v-if="from || proof.stops.length" class="only-print">
          {{ engine.name }}, firing order {{ engine.firing_order.join('-') }}. {{ from ? `From: ${from}. ` : '' }}Proved
          on {{ day(new Date().toISOString()) }}; {{ degrees(proof.required_margin_deg) }} from opening and closing are
          required.
        </p>
        <ul v-if="proof.slips.length" class="ma-0 ps-5 fs-20">
          <li v-for="f in proof.slips" :key="f.line">Line {{ f.line }}: {{ f.says }}</li>
        </ul>
        <ol v-if="proof.stops.length" class="stops d-grid ga-2 ma-0 pa-0 list-none">
          <li v-for="(s, i) in proof.stops" :key="i" class="d-grid ga-3 py-2 px-4 on-panel">
            <span
              ><b>{{ i + 1 }}. {{ s.place }}</b
              ><small class="quiet d-block">{{
                i ? `${degrees(s.turn_deg)} on` : `at ${degrees(s.crank_deg)}`
              }}</small></span
            >
            <ul class="ma-0 pa-0 list-none d-grid ga-1">
              <li v-for="v in s.valves" :key="v.valve" :class="{ short: v.short_deg > 0 }">
                <b>{{ v.valve }}</b>
                {{ v.says || `clear by ${degrees(v.margin_deg)}` }}
              </li>
            </ul>
          </li>
        </ol>
        <p v-if="proof.stops.length > 1" class="quiet">
          {{ proof.stops.length }} stops, {{ degrees(proof.turn_deg) }} from the first to the last.
        </p>
      </template>
    </div>
  </AppPage>
</template>

<style scoped>
.order {
  max-width: 1100px;
}

.says {
  padding-left: 16px;
  border-left: 8px solid var(--in);
}

.says.wrong {
  border-color: var(--tight);
}

.stops > li {
  grid-template-columns: minmax(180px, 1fr) 2fr;
}

.short {
  color: var(--tight);
}

.drawing :deep(svg) {
  max-height: 340px;
}

.only-print {
  display: none;
}

@media (width <= 600px) {
  .stops > li {
    grid-template-columns: 1fr;
  }
}

@media print {
  .only-print {
    display: block;
  }

  .write {
    display: none;
  }
}
</style>
